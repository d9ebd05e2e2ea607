import { unpacked } from "../containers.ts";
import { damaged } from "../errors.ts";
import { decodePage } from "../text-encoding.ts";
import { childOf, elements, readXml, textOf, type XmlElement } from "../xml-tree.ts";

/** A relationship of a part: to another part, or to an address outside. */
export interface Relationship {
  target: string;
  isOutside: boolean;
}

/** The parts of a text document in its container (ECMA-376, part 2), found by their relationships. */
export class DocumentParts {
  private readonly files: Record<string, Uint8Array>;
  private readonly related = new Map<string, ReadonlyMap<string, Relationship & { type: string }>>();
  /** The path of the part with the text. */
  readonly text: string;

  /** @throws ImportError `format` where the container cannot be unpacked, is too large, or has no text */
  constructor(bytes: Uint8Array) {
    this.files = unpacked(bytes);
    const [main] = [...this.relationships("").values()].filter(({ type }) => type === "officeDocument");
    const text = main?.target ?? "word/document.xml";
    if (!this.files[text]) throw damaged("The document has no part with its text in it.");
    this.text = text;
  }

  /** The tree of a part, or null where there is none at that path. */
  tree(path: string): XmlElement | null {
    const bytes = this.files[path];
    return bytes ? readXml(path, decodePage(bytes)) : null;
  }

  /** What exports of ours say in properties of the document (ECMA-376, 22.3), by name. */
  kept(): ReadonlyMap<string, string> {
    const path = this.partOf("", "custom-properties");
    const tree = path === null ? null : this.tree(path);
    return new Map(
      elements(tree ?? undefined).flatMap((property): [string, string][] => {
        const { name = "" } = property.attributes;
        const value = childOf(property, "lpwstr");
        return name.startsWith("vennet-") && value ? [[name, textOf(value)]] : [];
      }),
    );
  }

  bytes(path: string): Uint8Array | null {
    return this.files[path] ?? null;
  }

  /** The part that another one names by the last word of a relationship's type, as `footnotes`. */
  partOf(from: string, type: string): string | null {
    for (const one of this.relationships(from).values()) if (one.type === type) return one.target;
    return null;
  }

  /** All parts that another one names by such a type. */
  partsOf(from: string, type: string): string[] {
    return [...this.relationships(from).values()]
      .filter((one) => one.type === type)
      .map(({ target }) => target);
  }

  /** What a part leads to, by the ids by which it says so. */
  relationships(part: string): ReadonlyMap<string, Relationship & { type: string }> {
    const known = this.related.get(part);
    if (known) return known;
    const read = this.readRelationships(part);
    this.related.set(part, read);
    return read;
  }

  private readRelationships(part: string): Map<string, Relationship & { type: string }> {
    const cut = part.lastIndexOf("/") + 1;
    const tree = this.tree(`${part.slice(0, cut)}_rels/${part.slice(cut)}.rels`);
    return new Map(
      elements(tree ?? undefined).map(({ attributes }) => {
        const isOutside = attributes["TargetMode"] === "External";
        const target = attributes["Target"] ?? "";
        const type = (attributes["Type"] ?? "").split("/").at(-1)!;
        return [
          attributes["Id"] ?? "",
          { target: isOutside ? target : pathFrom(part.slice(0, cut), target), isOutside, type },
        ];
      }),
    );
  }
}

/** A path within the container from one that is relative to a folder of it. */
function pathFrom(folder: string, target: string): string {
  return new URL(target, `part:///${folder}`).pathname.replace(/^\/+/, "");
}
