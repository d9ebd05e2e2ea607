import type { Element, Nodes } from "hast";
import type { Node } from "prosemirror-model";
import { newId } from "../../manuscript/ids.ts";
import type { LeftOut } from "../left-out.ts";
import type { Follows } from "./carried.ts";
import { FilePlaces } from "./file-places.ts";

export interface TreeOptions {
  /** The title of the chapter for text before the first level-1 heading. */
  fallbackTitle: string;
  /** An absolute web address from which relative links start; null keeps them as files. */
  baseAddress: string | null;
  /** The id of the stored file for a picture's source, or null where it was not brought along. */
  pictureFor: (source: string) => string | null;
  /** The size of a picture that came along, in pixels; null for one that did not. */
  pictureSize: (source: string) => { width: number; height: number } | null;
  /** Why a picture that is in the file, or was to be fetched from the web, did not come; null for any other. */
  missing?: (source: string) => MissingPicture | null;
  /** The id of the companion file for a link's href, or null where none came along. */
  companionFor: (href: string) => string | null;
  /** Where a node stands in the file, in words that fit its format. */
  whereOf: (node: Nodes) => string | null;
}

/** What is told of a picture that did not come although it should have. */
export interface MissingPicture {
  sort: string;
  why: string;
}

/** What is known of a file while it is read. */
export class FileReading {
  readonly leftOut: (LeftOut & { order: number })[] = [];
  readonly places = new FilePlaces();
  readonly noteBodies = new Map<string, Node[]>();
  /** The ids of anchors that a book had which was exported. */
  readonly ownAnchors = new Set<string>();
  /** The ids of captions that stand right above their tables. */
  readonly captionsAbove = new Set<string>();
  /** The elements that became links, by the links' ids. */
  readonly linkNodes = new Map<string, Nodes>();
  /** The links whose words follow their targets, by the links' ids. */
  readonly follows = new Map<string, Follows>();
  private readonly linkIds = new Map<string, string>();
  private readonly noteIds = new Map<string, string>();
  private readonly noteNames = new Map<string, string>();

  constructor(readonly options: TreeOptions) {}

  /** Lists something that could not be taken over as it was. */
  tell(node: Nodes | undefined, sort: string, what: string, why: string, href?: string): void {
    const order = node?.position?.start.offset ?? Infinity;
    this.leftOut.push({
      where: node ? this.options.whereOf(node) : null,
      sort,
      what,
      why,
      order,
      ...(href === undefined ? {} : { href }),
    });
  }

  /** The id of a link: parts of one that runs over paragraphs have the same. */
  linkId({ properties }: Element): string {
    const link = properties["dataLink"];
    if (typeof link !== "string") return newId();
    const id = this.linkIds.get(link) ?? newId();
    this.linkIds.set(link, id);
    return id;
  }

  /** The id of the note that a file calls by a name. */
  noteId(name: string): string {
    const known = this.noteIds.get(name);
    if (known) return known;
    const id = newId();
    this.noteIds.set(name, id);
    this.noteNames.set(id, name);
    return id;
  }

  /** The name by which the file calls a note. */
  noteName(id: string): string {
    return this.noteNames.get(id)!;
  }
}
