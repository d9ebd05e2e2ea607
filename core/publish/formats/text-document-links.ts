import type { Destination } from "../../destination/kinds/kinds.ts";
import type { LinkAttrs } from "../../manuscript/attributes.ts";
import type { BookIndex } from "../../manuscript/book-index.ts";
import type { Book } from "../../manuscript/book.ts";
import type { OwnLook } from "../../manuscript/looks.ts";
import { saidOfLook, type Said } from "../said-for-coming-back.ts";
import { travel } from "../travel.ts";
import { travellingFiles, type TravellingFile } from "../travelling-files.ts";

/** Where a link of a text document leads. */
export type DocumentTarget = { address: string } | { file: string } | { place: string };

/** What the links of a text document are written by, and the places that have been. */
export class TextDocumentLinks {
  private readonly files: ReadonlyMap<string, TravellingFile>;
  private readonly placed = new Set<string>();

  constructor(
    private readonly book: Book,
    private readonly index: BookIndex,
  ) {
    this.files = travellingFiles(book);
  }

  /** Where a link leads in the document; null where it stays words. */
  target(destination: Destination): DocumentTarget | null {
    const way = travel(destination, this.index, this.files);
    if (way.kind === "words") return null;
    if (way.kind === "place") return { place: way.place.id };
    return way.kind === "file" ? { file: way.href } : { address: way.address };
  }

  /** How the words of a link look; null for those that look like the text around them. */
  lookOf({ asText, look, destination }: LinkAttrs): OwnLook | null {
    return asText ? null : (look ?? this.book.looks[destination.kind]);
  }

  /** What a link has that a text document has no place for; null where it has nothing. */
  besides(link: LinkAttrs): Said | null {
    const look = saidOfLook(link);
    const named = this.files.get("file" in link.destination ? link.destination.file : "");
    // A name that cannot be the file's in a path.
    const file = named === undefined || named.path.endsWith(`/${named.name}`) ? null : named.name;
    if (look === null && file === null && !link.newWindow) return null;
    return { look, file, "new-window": link.newWindow ? "" : null };
  }

  /** Whether a place comes for the first time, and has its mark. */
  isFirst(id: string): boolean {
    if (this.placed.has(id)) return false;
    this.placed.add(id);
    return true;
  }
}
