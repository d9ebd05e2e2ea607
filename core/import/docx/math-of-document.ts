import type { Element } from "hast";
import { element } from "../hast-nodes.ts";
import { childOf, elements, isOn, textOf, valueOf, type XmlElement } from "../xml-tree.ts";

/** A formula of a text document (ECMA-376-1, 22.1) as MathML; `display` is whether it stands in a line of its own. */
export function mathOfDocument(formula: XmlElement, display: boolean, paragraph: number): Element {
  const make = (name: string, children: Element[]): Element => element(name, {}, children, paragraph);
  const token = (name: string, said: string): Element =>
    element(name, {}, [{ type: "text", value: said }], paragraph);
  const row = (parent: XmlElement | undefined): Element => {
    const parts = partsOf(parent);
    return parts.length === 1 ? parts[0]! : make("mrow", parts);
  };
  const partsOf = (parent: XmlElement | undefined): Element[] => elements(parent).flatMap(partOf);
  const sign = (properties: XmlElement | undefined, name: string, usual: string): Element =>
    token("mo", valueOf(properties, name) ?? usual);
  function partOf(part: XmlElement): Element[] {
    const e = childOf(part, "e");
    const properties = childOf(part, `${part.name}Pr`);
    switch (part.name) {
      case "r":
        return tokensOf(
          elements(part)
            .filter(({ name }) => name === "t")
            .map(textOf)
            .join(""),
          part,
        );
      case "f": {
        const [over, under] = [row(childOf(part, "num")), row(childOf(part, "den"))];
        const noBar = valueOf(properties, "type") === "noBar" ? { linethickness: "0" } : {};
        return [element("mfrac", noBar, [over, under], paragraph)];
      }
      case "sSup":
        return [make("msup", [row(e), row(childOf(part, "sup"))])];
      case "sSub":
        return [make("msub", [row(e), row(childOf(part, "sub"))])];
      case "sSubSup":
        return [make("msubsup", [row(e), row(childOf(part, "sub")), row(childOf(part, "sup"))])];
      case "sPre": {
        const before = [make("mprescripts", []), row(childOf(part, "sub")), row(childOf(part, "sup"))];
        return [make("mmultiscripts", [row(e), ...before])];
      }
      case "rad": {
        const degree = childOf(part, "deg");
        return isOn(properties, "degHide") || elements(degree).length === 0
          ? [make("msqrt", partsOf(e))]
          : [make("mroot", [row(e), row(degree)])];
      }
      case "nary":
        return [...naryOf(part, properties), ...partsOf(e)];
      case "d":
        return [delimited(part, properties)];
      case "limLow":
        return [make("munder", [row(e), row(childOf(part, "lim"))])];
      case "limUpp":
        return [make("mover", [row(e), row(childOf(part, "lim"))])];
      case "acc":
        return [make("mover", [row(e), sign(properties, "chr", "\u02c6")])];
      case "bar":
        return valueOf(properties, "pos") === "top"
          ? [make("mover", [row(e), token("mo", "¯")])]
          : [make("munder", [row(e), token("mo", "_")])];
      case "groupChr":
        return valueOf(properties, "pos") === "top"
          ? [make("mover", [row(e), sign(properties, "chr", "⏞")])]
          : [make("munder", [row(e), sign(properties, "chr", "⏟")])];
      case "m":
        return [
          make(
            "mtable",
            elements(part)
              .filter(({ name }) => name === "mr")
              .map((line) =>
                make(
                  "mtr",
                  elements(line).map((cell) => make("mtd", partsOf(cell))),
                ),
              ),
          ),
        ];
      case "eqArr":
        return [
          make(
            "mtable",
            elements(part)
              .filter(({ name }) => name === "e")
              .map((line) => make("mtr", [make("mtd", partsOf(line))])),
          ),
        ];
      default:
        // Properties hold no words; all else holds parts.
        return part.name.endsWith("Pr") ? [] : partsOf(part);
    }
  }

  function naryOf(part: XmlElement, properties: XmlElement | undefined): Element[] {
    const base = sign(properties, "chr", "∫");
    const [sub, sup] = [row(childOf(part, "sub")), row(childOf(part, "sup"))];
    const isBeside = (valueOf(properties, "limLoc") ?? "subSup") === "subSup";
    const [low, high] = [isOn(properties, "subHide"), isOn(properties, "supHide")];
    if (low && high) return [base];
    if (high) return [make(isBeside ? "msub" : "munder", [base, sub])];
    if (low) return [make(isBeside ? "msup" : "mover", [base, sup])];
    return [make(isBeside ? "msubsup" : "munderover", [base, sub, sup])];
  }

  function delimited(part: XmlElement, properties: XmlElement | undefined): Element {
    const between = valueOf(properties, "sepChr") ?? "|";
    const inner = elements(part)
      .filter(({ name }) => name === "e")
      .flatMap((one, i) => (i === 0 ? partsOf(one) : [token("mo", between), ...partsOf(one)]));
    const [open, close] = [sign(properties, "begChr", "("), sign(properties, "endChr", ")")];
    return make("mrow", [open, ...inner, close]);
  }

  /** The letters, numbers and signs of a run, each as what it is. */
  function tokensOf(words: string, run: XmlElement): Element[] {
    const style = childOf(run, "rPr");
    if (childOf(style, "nor")) return words === "" ? [] : [token("mtext", words)];
    const upright = valueOf(style, "sty") === "p" ? { mathvariant: "normal" } : {};
    const isName = valueOf(style, "sty") === "p" && /^\p{L}{2,}$/u.test(words);
    const found = words.match(/\d+(?:[.,]\d+)*|\p{L}\p{M}*|[^\s]/gu) ?? [];
    if (isName) return [token("mi", words)];
    return found.map((one) =>
      /^\d/.test(one)
        ? token("mn", one)
        : /^\p{L}/u.test(one)
          ? element("mi", upright, [{ type: "text", value: one.normalize("NFKC") }], paragraph)
          : token("mo", one),
    );
  }

  return element("math", display ? { display: "block" } : {}, partsOf(formula), paragraph);
}
