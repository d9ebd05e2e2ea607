import { childOf, elements, valueOf, type XmlElement } from "../xml-tree.ts";

/** How one level of a list is numbered. */
export interface ListLevel {
  isNumbered: boolean;
  start: number;
  /** Whether a reader sees the number. */
  isShown: boolean;
}

const unknown: ListLevel = { isNumbered: false, start: 1, isShown: false };

/** The lists of a document (ECMA-376, 17.9): what each level shows, by the ids by which paragraphs name them. */
export class Numbering {
  private readonly levels = new Map<string, Map<number, ListLevel>>();

  constructor(tree: XmlElement | null) {
    const all = elements(tree ?? undefined);
    const abstract = new Map(
      all
        .filter(({ name }) => name === "abstractNum")
        .map((one) => [one.attributes["abstractNumId"] ?? "", levelsOf(one)] as const),
    );
    for (const one of all) {
      if (one.name !== "num") continue;
      const levels = new Map(abstract.get(valueOf(one, "abstractNumId") ?? ""));
      for (const change of elements(one)) {
        if (change.name !== "lvlOverride") continue;
        const level = Number(change.attributes["ilvl"]);
        const own = childOf(change, "lvl");
        const start = valueOf(change, "startOverride");
        const was = own ? levelOf(own) : (levels.get(level) ?? unknown);
        levels.set(level, start === undefined ? was : { ...was, start: Number(start) });
      }
      this.levels.set(one.attributes["numId"] ?? "", levels);
    }
  }

  of(id: string, level: number): ListLevel {
    return this.levels.get(id)?.get(level) ?? unknown;
  }
}

function levelsOf(abstract: XmlElement): Map<number, ListLevel> {
  return new Map(
    elements(abstract)
      .filter(({ name }) => name === "lvl")
      .map((level) => [Number(level.attributes["ilvl"]), levelOf(level)]),
  );
}

function levelOf(level: XmlElement): ListLevel {
  const format = valueOf(level, "numFmt") ?? "decimal";
  const isNumbered = !/^(bullet|none)$/.test(format);
  return {
    isNumbered,
    start: Number(valueOf(level, "start") ?? 1),
    // Where the number stands in the words that are set before the paragraph (17.9.11).
    isShown: isNumbered && /%\d/.test(valueOf(level, "lvlText") ?? "%1"),
  };
}
