import { lineSides } from "../looks-by-name.ts";
import { childOf, elements, type XmlElement } from "../xml-tree.ts";

/** What a style makes of words or of a paragraph. */
export interface OdtStyle {
  bold: boolean;
  italic: boolean;
  raised: "sup" | "sub" | null;
  struck: boolean;
  underlined: boolean;
  smallCapitals: boolean;
  /** Whether its words are code, by the name of the style. */
  isCode: boolean;
  /** The font of its words; null where it says none. */
  font: string | null;
  /** The language of its words; null where it says none. */
  language: string | null;
  /** The name by which authors know the paragraph style that it is, or is made from. */
  name: string;
  outlineLevel: number | null;
  /** How its lines are aligned, where that is not as usual. */
  align: "center" | "end" | null;
  /** What it says of that by itself, as it says it. */
  side: string | null;
  /** Whether its paragraph begins a page. */
  beginsPage: boolean;
}

const plain: OdtStyle = {
  bold: false,
  italic: false,
  raised: null,
  struck: false,
  underlined: false,
  smallCapitals: false,
  isCode: false,
  font: null,
  language: null,
  name: "",
  outlineLevel: null,
  align: null,
  side: null,
  beginsPage: false,
};

/** A tag of BCP 47, whole or of its parts. */
function languageOf(words: Readonly<Record<string, string>>): string | null {
  const { language, country, "rfc-language-tag": whole } = words;
  if (whole) return whole;
  if (!language || language === "none" || language === "zxx") return null;
  return country && country !== "none" ? `${language}-${country}` : language;
}

/** The styles of a document (OpenDocument 1.3, part 3, 16), each with what it has from its parents. */
export class OdtStyles {
  private readonly byName = new Map<string, XmlElement>();
  private readonly lists = new Map<string, XmlElement>();
  /** What all paragraphs have for which their own styles say nothing else. */
  private usual: XmlElement | undefined;
  private readonly numberedLevels = new Set<number>();

  constructor(trees: readonly (XmlElement | null)[]) {
    for (const tree of trees)
      for (const group of elements(tree ?? undefined))
        for (const style of elements(group)) {
          const { name } = style.attributes;
          if (style.name === "style" && name !== undefined) this.byName.set(name, style);
          if (style.name === "default-style" && style.attributes["family"] === "paragraph")
            this.usual = style;
          if (style.name === "list-style" && name !== undefined) this.lists.set(name, style);
          if (style.name === "outline-style")
            for (const { attributes } of elements(style))
              if (attributes["num-format"]) this.numberedLevels.add(Number(attributes["level"]));
        }
  }

  /** The languages of all words for which no other is told, of those in letters of each sort (part 3, 16.4 and 20). */
  usualLanguages(): (string | null)[] {
    return [this.byName.get("Standard"), this.usual].flatMap((style) => {
      const words = childOf(style, "text-properties")?.attributes ?? {};
      return ["", "-asian", "-complex"].map((sort) =>
        languageOf({
          language: words[`language${sort}`] ?? "",
          country: words[`country${sort}`] ?? "",
          "rfc-language-tag": words[`rfc-language-tag${sort}`] ?? "",
        }),
      );
    });
  }

  /** Whether headings of a level carry a number (part 3, 16.34). */
  isNumbered(level: number): boolean {
    return this.numberedLevels.has(level);
  }

  of(name: string | undefined, above = 0): OdtStyle {
    const style = name === undefined ? undefined : this.byName.get(name);
    if (!style || above > 20) return { ...plain, name: name ?? "" };
    const parent = style.attributes["parent-style-name"];
    const from = parent === undefined ? plain : this.of(parent, above + 1);
    const words = childOf(style, "text-properties")?.attributes ?? {};
    const lines = childOf(style, "paragraph-properties")?.attributes ?? {};
    const isAutomatic = parent !== undefined && /^[PT]\d+$/.test(name!);
    const position = words["text-position"] ?? "";
    const level = Number(style.attributes["default-outline-level"] ?? NaN);
    return {
      bold: words["font-weight"] === undefined ? from.bold : /^(bold|[6-9]00)$/.test(words["font-weight"]),
      italic: words["font-style"] === undefined ? from.italic : words["font-style"] !== "normal",
      raised: /^(super|[1-9]\d*%)/.test(position) ? "sup" : /^(sub|-\d)/.test(position) ? "sub" : from.raised,
      struck:
        words["text-line-through-style"] === undefined
          ? from.struck
          : words["text-line-through-style"] !== "none",
      underlined:
        words["text-underline-style"] === undefined
          ? from.underlined
          : words["text-underline-style"] !== "none",
      smallCapitals:
        words["font-variant"] === undefined ? from.smallCapitals : words["font-variant"] === "small-caps",
      isCode: from.isCode || name === "Source_20_Text" || name === "Teletype",
      font: words["font-name"] ?? words["font-family"] ?? from.font,
      language: languageOf(words) ?? from.language,
      name: isAutomatic ? from.name : name!,
      align: lines["text-align"] === undefined ? from.align : (lineSides[lines["text-align"]] ?? null),
      side: lines["text-align"] ?? from.side,
      // What a style says of all its paragraphs, as of chapters' titles, and what one has of its own.
      beginsPage: lines["break-before"] === undefined ? from.beginsPage : lines["break-before"] === "page",
      outlineLevel: level >= 1 ? level : from.outlineLevel,
    };
  }

  /** How a level of a list is numbered. */
  listLevel(name: string | undefined, level: number): { isNumbered: boolean; start: number } {
    const style = name === undefined ? undefined : this.lists.get(name);
    const own = elements(style).find(({ attributes }) => attributes["level"] === String(level));
    return {
      isNumbered: own?.name === "list-level-style-number" && (own.attributes["num-format"] ?? "1") !== "",
      start: Number(own?.attributes["start-value"] ?? 1) || 1,
    };
  }
}
