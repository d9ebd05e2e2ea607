import type { SetOff } from "../../manuscript/set-off.ts";
import { setOffOfStyle } from "../looks-by-name.ts";
import { childOf, elements, isOn, valueOf, type XmlElement } from "../xml-tree.ts";

/** What a style makes of words or of a paragraph. */
export interface ReadStyle {
  /** 1 to 9 for a heading, 0 for the document's title, null for what is none. */
  heading: number | null;
  bold: boolean;
  italic: boolean;
  /** The list to which its paragraphs belong. */
  list: { id: string; level: number } | null;
  /** As what its paragraphs are set off. */
  setOff: SetOff | null;
  /** How its lines are aligned, as the document says it. */
  align: string | null;
  isCode: boolean;
}

const plain: ReadStyle = {
  heading: null,
  bold: false,
  italic: false,
  list: null,
  setOff: null,
  align: null,
  isCode: false,
};

/** The styles of a document (ECMA-376, 17.7), each with what it has from those that it is based on. */
export class Styles {
  private readonly byId = new Map<string, XmlElement>();
  private readonly known = new Map<string, ReadStyle>();

  constructor(tree: XmlElement | null) {
    for (const style of elements(tree ?? undefined))
      if (style.name === "style" && style.attributes["styleId"])
        this.byId.set(style.attributes["styleId"], style);
  }

  of(id: string | undefined): ReadStyle {
    return id === undefined ? plain : this.read(id, new Set());
  }

  private read(id: string, above: Set<string>): ReadStyle {
    const known = this.known.get(id);
    if (known) return known;
    const style = this.byId.get(id);
    if (!style || above.has(id)) return plain;
    const base = valueOf(style, "basedOn");
    const from = base === undefined ? plain : this.read(base, new Set(above).add(id));
    const properties = childOf(style, "pPr");
    const words = childOf(style, "rPr");
    // Names of built-in styles are the same in every language.
    const name = (valueOf(style, "name") ?? "").toLowerCase();
    const own = /^heading ([1-9])$/.exec(name)?.[1];
    const read: ReadStyle = {
      heading: name === "title" ? 0 : own ? Number(own) : (outlineOf(properties) ?? from.heading),
      bold: isOn(words, "b") ?? from.bold,
      italic: isOn(words, "i") ?? from.italic,
      list: listOf(properties) ?? from.list,
      setOff: setOffOfStyle(name) ?? from.setOff,
      align: valueOf(properties, "jc") ?? from.align,
      isCode:
        /^(html (preformatted|code|sample|keyboard|typewriter)|macro text|source (code|text)|preformatted text)$/.test(
          name,
        ) || from.isCode,
    };
    this.known.set(id, read);
    return read;
  }
}

/** The level of a heading that a paragraph's properties give it; null for the text's. */
export function outlineOf(properties: XmlElement | undefined): number | null {
  const level = Number(valueOf(properties, "outlineLvl") ?? NaN);
  return level >= 0 && level <= 8 ? level + 1 : null;
}

/** The list that a paragraph's properties put it into; an id of 0 takes it out of its style's. */
export function listOf(properties: XmlElement | undefined): ReadStyle["list"] {
  const numbering = childOf(properties, "numPr");
  const id = valueOf(numbering, "numId");
  return id === undefined ? null : { id, level: Number(valueOf(numbering, "ilvl") ?? 0) || 0 };
}
