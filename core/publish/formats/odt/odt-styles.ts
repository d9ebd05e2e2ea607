import type { OwnLook } from "../../../manuscript/looks.ts";
import { pageSize, type PageLayout } from "../../../manuscript/page-layout.ts";
import type { SetOff } from "../../../manuscript/set-off.ts";
import { ofWordMarks, type ByWordMark } from "../../../manuscript/word-marks.ts";
import { languageDirection, type Direction } from "../../../manuscript/direction.ts";
import { languageOf } from "../../../manuscript/language.ts";
import type { Node } from "prosemirror-model";
import { escapeXml } from "../../xhtml/escape-xml.ts";

// Styles of an OpenDocument text (OpenDocument 1.3, part 3, 16 and 20).

const markProperties: ByWordMark<string> = {
  strong: 'fo:font-weight="bold"',
  emphasis: 'fo:font-style="italic"',
  code: 'fo:font-family="Courier New"',
  superscript: 'style:text-position="super 58%"',
  subscript: 'style:text-position="sub 58%"',
  strike: 'style:text-line-through-style="solid"',
  underline: 'style:text-underline-style="solid"',
  small_caps: 'fo:font-variant="small-caps"',
};

/** The names of the styles of paragraphs that are set off. */
export const setOffStyle: Readonly<Record<SetOff, string>> = {
  quotation: "Quoted",
  verse: "Verse_20_line",
  epigraph: "Epigraph_20_line",
  notice: "Notice_20_line",
};

/** The automatic styles of a document, each made where it is first needed. */
export class OdtStylesInUse {
  private readonly made = new Map<string, string>();

  /** The style of words in their marks and language; null for plain ones. */
  ofWords(node: Node): string | null {
    const language = languageOf(node);
    const code = node.marks.some(({ type }) => type.name === "code");
    const properties = [
      ...ofWordMarks(node, markProperties),
      ...(language === null ? [] : [languageProperties(language)]),
    ].join(" ");
    return properties === "" ? null : this.of("text", code ? "Source_20_Text" : null, properties);
  }

  /** The style of the words of a link in its look. */
  ofLink({ colour, underline, bold }: OwnLook): string {
    const line = underline === "dashed" ? "dash" : underline;
    return this.of(
      "text",
      null,
      `fo:color="${colour}" style:text-underline-style="${line}"${bold ? ' fo:font-weight="bold"' : ""}`,
    );
  }

  /** The style of a paragraph that is not as its kind is. */
  ofParagraph(parent: string, properties: string): string {
    return this.of("paragraph", parent, properties);
  }

  get xml(): string {
    return [...this.made].map(([key, name]) => key.replace("{name}", name)).join("");
  }

  private of(family: "text" | "paragraph", parent: string | null, properties: string): string {
    const above = parent === null ? "" : ` style:parent-style-name="${parent}"`;
    const key = `<style:style style:name="{name}" style:family="${family}"${above}><style:${family}-properties ${properties}/></style:style>`;
    const known = this.made.get(key);
    if (known !== undefined) return known;
    const name = `${family === "text" ? "T" : "P"}${this.made.size + 1}`;
    this.made.set(key, name);
    return name;
  }
}

/** In which direction lines go, as a document says it (20.404, from memory). */
export function writingMode(direction: Direction): string {
  return `style:writing-mode="${direction === "rtl" ? "rl-tb" : "lr-tb"}"`;
}

/** A language as a document says it (BCP 47 and its parts). */
function languageProperties(tag: string): string {
  const { language, region, script } = new Intl.Locale(tag);
  return `fo:language="${language}" fo:country="${region ?? "none"}"${script ? ` fo:script="${script}"` : ""} style:rfc-language-tag="${escapeXml(tag)}"`;
}

const deepestList = 10;
const step = 0.6;

function listLevels(of: (level: number) => string): string {
  return Array.from({ length: deepestList }, (_, i) => of(i + 1)).join("");
}

function levelPlace(level: number): string {
  const left = (level * step).toFixed(1);
  return `<style:list-level-properties text:list-level-position-and-space-mode="label-alignment"><style:list-level-label-alignment text:label-followed-by="listtab" text:list-tab-stop-position="${left}cm" fo:text-indent="-${step}cm" fo:margin-left="${left}cm"/></style:list-level-properties>`;
}

const paragraphStyles: readonly [name: string, paragraph: string, words: string][] = [
  ["Quoted", 'fo:margin-left="1cm" fo:margin-right="1cm"', ""],
  ["Verse_20_line", 'fo:margin-left="1.5cm"', ""],
  ["Epigraph_20_line", 'fo:margin-left="5cm"', 'fo:font-style="italic"'],
  ["Notice_20_line", 'fo:padding="0.1cm" fo:border="0.5pt solid #857e70"', ""],
  ["Preformatted_20_Text", "", 'fo:font-family="Courier New" fo:font-size="9pt"'],
  ["Table_20_Heading", "", 'fo:font-weight="bold"'],
  ["Term", 'fo:keep-with-next="always"', 'fo:font-weight="bold"'],
  ["Meaning", 'fo:margin-left="1cm"', ""],
  ["Small", "", 'fo:font-size="9pt"'],
];

/** The named styles of every document, its pages, and how long words and lists are. */
export function stylesXml(layout: PageLayout, language: string): string {
  const direction = writingMode(languageDirection(language));
  const { width, height } = pageSize(layout);
  const style = (name: string, paragraph: string, words: string): string =>
    `<style:style style:name="${name}" style:display-name="${name.replaceAll("_20_", " ")}" style:family="paragraph" style:parent-style-name="Standard"><style:paragraph-properties ${paragraph}/><style:text-properties ${words}/></style:style>`;
  const heading = (level: number): string =>
    `<style:style style:name="Heading_20_${level}" style:display-name="Heading ${level}" style:family="paragraph" style:parent-style-name="Standard" style:default-outline-level="${level}"><style:paragraph-properties${level === 1 ? ' fo:break-before="page"' : ""} fo:margin-top="0.6cm" fo:margin-bottom="0.3cm" fo:keep-with-next="always"/><style:text-properties fo:font-weight="bold" fo:font-size="${[20, 16, 14, 12, 11][level - 1]}pt"/></style:style>`;
  return [
    `<office:styles><style:default-style style:family="paragraph"><style:paragraph-properties ${direction}/><style:text-properties fo:font-family="Georgia" fo:font-size="11pt" ${languageProperties(language)}/></style:default-style>`,
    '<style:style style:name="Standard" style:family="paragraph"><style:paragraph-properties fo:margin-bottom="0.25cm"/></style:style>',
    '<style:style style:name="Title" style:family="paragraph" style:parent-style-name="Standard"><style:text-properties fo:font-size="26pt" fo:font-weight="bold"/></style:style>',
    '<style:style style:name="Source_20_Text" style:display-name="Source Text" style:family="text"><style:text-properties fo:font-family="Courier New"/></style:style>',
    ...paragraphStyles.map(([name, paragraph, words]) => style(name, paragraph, words)),
    ...[1, 2, 3, 4, 5].map(heading),
    `<text:list-style style:name="Bullets">${listLevels((level) => `<text:list-level-style-bullet text:level="${level}" text:bullet-char="•">${levelPlace(level)}</text:list-level-style-bullet>`)}</text:list-style>`,
    `<text:list-style style:name="Numbers">${listLevels((level) => `<text:list-level-style-number text:level="${level}" style:num-format="1" style:num-suffix=".">${levelPlace(level)}</text:list-level-style-number>`)}</text:list-style>`,
    '<text:notes-configuration text:note-class="footnote" style:num-format="1" text:start-value="0" text:footnotes-position="page"/>',
    "</office:styles>",
    `<office:automatic-styles><style:page-layout style:name="Page"><style:page-layout-properties fo:page-width="${width}mm" fo:page-height="${height}mm" fo:margin-left="${layout.inner}mm" fo:margin-right="${layout.outer}mm" fo:margin-top="${layout.top}mm" fo:margin-bottom="${layout.bottom}mm" ${direction}/></style:page-layout></office:automatic-styles>`,
    '<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="Page"/></office:master-styles>',
  ].join("");
}

/** The styles of sections and cells, which are those of the text itself. */
export const contentStyles =
  '<style:style style:name="Section" style:family="section"><style:section-properties/></style:style><style:style style:name="Cell" style:family="table-cell"><style:table-cell-properties fo:border="0.5pt solid #857e70" fo:padding="0.1cm"/></style:style>';
