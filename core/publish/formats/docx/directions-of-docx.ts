import { hasLettersToLeft, textDirection, type Direction } from "../../../manuscript/direction.ts";

/** What comes behind in the properties of a paragraph, a run and a section, whose parts have an order (ECMA-376 part 1, annex A). */
const behindInParagraph =
  /<w:(?:spacing|ind|contextualSpacing|mirrorIndents|jc|textAlignment|outlineLvl|rPr|sectPr)\b/;
const behindInRun = /<w:(?:cs|em|lang|eastAsianLayout)\b/;
const behindInSection = /<w:docGrid\b/;

const otherLetters = /[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}]/u;

/**
 * Says of the paragraphs, words, tables and sections of a part which go from right to left (17.3.1.6, 17.3.2.30, 17.4.1,
 * 17.6.1); of what says nothing programs take that it goes from left to right.
 * @param book the direction of its book
 */
export function withDirections(xml: string, book: Direction): string {
  if (book === "ltr" && !hasLettersToLeft(xml)) return xml;
  const turned = xml
    .replace(/<w:p>.*?<\/w:p>/gs, (paragraph) => withDirection(paragraph, book))
    .replace(/<w:r>(?:(?!<w:r>).)*?<\/w:r>/gs, wordsToLeft);
  if (book === "ltr") return turned;
  return turned
    .replaceAll("<w:tblPr>", "<w:tblPr><w:bidiVisual/>")
    .replace(
      /(<w:sectPr\b[^>]*>)(.*?)<\/w:sectPr>/gs,
      (_, begins: string, properties: string) =>
        `${begins}${put(properties, "<w:bidi/>", behindInSection)}</w:sectPr>`,
    );
}

function withDirection(paragraph: string, book: Direction): string {
  const isListing = paragraph.includes('<w:pStyle w:val="HTMLPreformatted"/>');
  if (isListing || textDirection(textOf(paragraph), book) === "ltr") return paragraph;
  const [whole, properties = ""] = /^<w:p>(?:<w:pPr>(.*?)<\/w:pPr>)?/s.exec(paragraph)!;
  return `<w:p><w:pPr>${put(properties, "<w:bidi/>", behindInParagraph)}</w:pPr>${paragraph.slice(whole.length)}`;
}

/** By it programs take bold, italic and sizes of such letters, and the order of signs among them. */
function wordsToLeft(run: string): string {
  const text = textOf(run);
  if (!hasLettersToLeft(text) || otherLetters.test(text)) return run;
  const [whole, properties = ""] = /^<w:r>(?:<w:rPr>(.*?)<\/w:rPr>)?/s.exec(run)!;
  return `<w:r><w:rPr>${put(properties, "<w:rtl/>", behindInRun)}</w:rPr>${run.slice(whole.length)}`;
}

function textOf(xml: string): string {
  return [...xml.matchAll(/<w:t(?: [^>]*)?>([^<]*)/g)].map(([, text]) => text).join("");
}

/** Puts a property before the first of those that come behind it. */
function put(properties: string, property: string, behind: RegExp): string {
  const at = properties.search(behind);
  return at === -1 ? properties + property : properties.slice(0, at) + property + properties.slice(at);
}
