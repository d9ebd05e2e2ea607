import { isSeenOn } from "../../../proof/css-values.ts";
import { nameSet } from "../../../proof/name-set.ts";

type Attributes = Readonly<Record<string, string>>;

/** Elements that hold text and what belongs to it, and leave it to be seen and pressed (OpenDocument 1.3, part 3: 3 to 10, from memory). */
const texts = nameSet(
  "office:document-content office:automatic-styles office:body office:text office:font-face-decls office:scripts",
  "text:p text:h text:span text:a text:s text:tab text:line-break text:soft-page-break text:bookmark text:bookmark-start",
  "text:bookmark-end text:list text:list-item text:list-header text:section text:meta text:note text:note-citation",
  "text:note-body text:note-ref text:sequence-decls text:sequence-decl table:table table:table-column",
  "table:table-header-rows table:table-rows table:table-row table:table-cell table:covered-table-cell",
  "draw:frame draw:image draw:object draw:a svg:desc svg:title text:tracked-changes",
);

/** Where looks, pages and numbers are said (16, 17). */
const styles = nameSet(
  "office:document-styles office:styles office:automatic-styles office:master-styles office:font-face-decls style:font-face",
  "style:style style:default-style style:text-properties style:paragraph-properties style:section-properties",
  "style:table-properties style:table-column-properties style:table-row-properties style:table-cell-properties",
  "style:graphic-properties style:tab-stops style:tab-stop style:columns style:page-layout style:page-layout-properties",
  "style:master-page style:list-level-properties style:list-level-label-alignment text:list-style",
  "text:list-level-style-bullet text:list-level-style-number text:notes-configuration text:outline-style",
  "text:outline-level-style text:linenumbering-configuration",
);

const meta = nameSet(
  "office:document-meta office:meta dc:title dc:creator dc:date dc:language dc:description dc:subject meta:generator",
  "meta:initial-creator meta:creation-date meta:user-defined meta:keyword meta:document-statistic meta:editing-cycles",
  "meta:editing-duration",
);

/** Attributes that tell what something is called, where it belongs and how it looks. */
const plain = nameSet(
  "office:version xml:id text:style-name text:name text:outline-level text:c text:id text:note-class text:ref-name",
  "text:reference-format text:start-value text:continue-numbering text:continue-list text:visited-style-name text:anchor-type",
  "text:display-outline-level text:label office:value-type office:title xlink:href xlink:type xlink:show xlink:actuate",
  "table:name table:style-name table:number-columns-spanned table:number-rows-spanned table:number-columns-repeated",
  "svg:width svg:height draw:name draw:style-name draw:mime-type",
  "style:name style:display-name style:family style:parent-style-name style:next-style-name style:list-style-name",
  "style:default-outline-level style:class style:page-layout-name style:num-format style:num-suffix style:num-prefix",
  "style:rfc-language-tag style:language-asian style:language-complex style:country-asian style:country-complex",
  "style:text-underline-style style:text-underline-width style:text-underline-color style:text-underline-type",
  "style:text-line-through-style style:text-line-through-type style:text-position style:font-name style:writing-mode",
  "fo:language fo:country fo:script fo:font-family fo:font-style fo:font-weight fo:font-variant fo:font-size fo:color",
  "fo:text-align fo:margin fo:margin-top fo:margin-right fo:margin-bottom fo:margin-left fo:padding fo:border",
  "fo:border-top fo:border-right fo:border-bottom fo:border-left fo:break-before fo:break-after fo:keep-with-next",
  "fo:keep-together fo:text-indent fo:page-width fo:page-height fo:line-height fo:hyphenate fo:widows fo:orphans",
  "text:level text:bullet-char text:list-level-position-and-space-mode text:label-followed-by text:list-tab-stop-position",
  "text:footnotes-position text:display-levels meta:name meta:value-type",
);

/** In centimetres: the smallest letters, the smallest page, and how far words may be moved. */
const leastLetter = 0.17;
const leastPage = 5;
const farthest = 15;
const centimetres: Record<string, number> = {
  cm: 1,
  mm: 0.1,
  in: 2.54,
  pt: 2.54 / 72,
  px: 2.54 / 96,
  pc: 2.54 / 6,
};

/** How long something is, in centimetres; NaN where it is a share, or no length. */
function lengthOf(value: string): number {
  const [, number, unit = ""] = /^(-?[\d.]+)([a-z]+)$/.exec(value) ?? [];
  return value === "0" ? 0 : Number(number) * (centimetres[unit] ?? NaN);
}

const within =
  (least: number, most: number) =>
  (value: string): boolean => {
    const length = lengthOf(value);
    return Number.isNaN(length) || (length >= least && length <= most);
  };
const isPlaced = within(0, farthest);

/** What attributes may say where words are to be seen and pressed. */
const values: Record<string, (value: string) => boolean> = {
  "fo:color": (value) => /^#[\da-f]{6}$/i.test(value) && isSeenOn(value.toLowerCase()),
  "fo:font-size": (value) => (value.endsWith("%") ? parseFloat(value) >= 50 : lengthOf(value) >= leastLetter),
  "fo:line-height": (value) =>
    value === "normal" || parseFloat(value) >= (value.endsWith("%") ? 80 : leastLetter),
  "style:text-position": (value) => {
    const [, raised = "0", size = "100"] = /^(super|sub|-?\d+)%?(?: (\d+)%)?$/.exec(value) ?? [];
    return Number(size) >= 40 && !(Math.abs(Number(raised)) > 100);
  },
  "fo:margin": isPlaced,
  "fo:margin-top": isPlaced,
  "fo:margin-right": isPlaced,
  "fo:margin-bottom": isPlaced,
  "fo:margin-left": isPlaced,
  "fo:padding": isPlaced,
  "fo:text-indent": within(-farthest / 2, farthest),
  "fo:page-width": within(leastPage, Infinity),
  "fo:page-height": within(leastPage, Infinity),
  "svg:width": (value) => lengthOf(value) > 0,
  "svg:height": (value) => lengthOf(value) > 0,
  "xlink:show": (value) => value === "embed" || value === "replace",
  "fo:border": (value) => value.split(" ").every(within(0, 0.5)),
};

/**
 * Why an element of a part, or an attribute of it, may keep readers from words and links; null where it is known that it
 * does not. What hides words by `text:display` is judged by whoever reads the text.
 * @param part its path in the document
 */
export function judgeTag(part: string, tag: string, attributes: Attributes): string | null {
  const known =
    part === "meta.xml" ? meta.has(tag) : styles.has(tag) || (part !== "styles.xml" && texts.has(tag));
  if (!known) return `It holds “${tag}”, which may hide words or take presses.`;
  for (const [name, value] of Object.entries(attributes)) {
    if (name.startsWith("xmlns:") || (name === "text:display" && part === "content.xml")) continue;
    if (!plain.has(name) || !(values[name]?.(value) ?? true))
      return `By “${name}” words may be hidden or moved, or a link lead elsewhere: “${value}”.`;
  }
  return null;
}
