import { isSeenOn } from "../../../proof/css-values.ts";
import { nameSet } from "../../../proof/name-set.ts";

type Attributes = Readonly<Record<string, string>>;

/** Elements that hold text and what belongs to it, and leave it to be seen and pressed (ECMA-376 part 1, 17.2 to 17.13). */
const texts = nameSet(
  "w:document w:body w:p w:r w:t w:tab w:br w:cr w:noBreakHyphen w:softHyphen w:sym w:hyperlink w:bookmarkStart",
  "w:bookmarkEnd w:proofErr w:lastRenderedPageBreak w:footnoteReference w:endnoteReference w:footnoteRef w:endnoteRef",
  "w:footnotes w:footnote w:endnotes w:endnote w:separator w:continuationSeparator w:fldSimple w:fldChar w:instrText",
  "w:sdt w:sdtPr w:sdtContent w:tag w:alias w:id w:drawing w:tbl w:tblGrid w:gridCol w:tr w:tc w:sectPr",
);

/** What says how text looks, and cannot keep it from being seen, or does so by a value that is judged. */
const looks = nameSet(
  "w:pPr w:rPr w:pStyle w:rStyle w:b w:bCs w:i w:iCs w:u w:strike w:smallCaps w:caps w:vertAlign w:rFonts w:lang w:color",
  "w:sz w:szCs w:jc w:ind w:keepNext w:keepLines w:pageBreakBefore w:numPr w:ilvl w:numId w:outlineLvl w:bidi w:rtl w:cs",
  "w:widowControl w:spacing w:contextualSpacing w:pBdr w:top w:left w:bottom w:right w:start w:end w:insideH w:insideV",
  "w:tblPr w:tblW w:tblBorders w:tblInd w:tblCellMar w:tblLayout w:tblLook w:bidiVisual w:tblHeader w:trPr w:cantSplit w:tcPr w:tcW",
  "w:gridSpan w:vMerge w:vAlign w:pgSz w:pgMar w:pgNumType w:docGrid w:cols w:tabs",
);

/** Pictures in a line (20.4.2.8) and formulas (22.1), but for those that are not shown (22.1.2.81). */
const drawn = nameSet(
  "wp:inline wp:extent wp:effectExtent wp:docPr wp:cNvGraphicFramePr a:graphic a:graphicData a:graphicFrameLocks a:picLocks",
  "a:hlinkClick a:blip a:srcRect a:stretch a:fillRect a:xfrm a:off a:ext a:prstGeom a:avLst",
  "pic:pic pic:nvPicPr pic:cNvPr pic:cNvPicPr pic:blipFill pic:spPr",
);
const formula = /^m:(?!phant)/;

/** Where numbers, names and styles are said (17.7, 17.9). */
const lists = nameSet(
  "w:styles w:style w:docDefaults w:rPrDefault w:pPrDefault w:name w:basedOn w:next w:link w:uiPriority w:qFormat w:semiHidden",
  "w:unhideWhenUsed w:latentStyles w:lsdException w:aliases w:rsid w:numbering w:abstractNum w:abstractNumId w:multiLevelType",
  "w:lvl w:start w:numFmt w:lvlText w:lvlJc w:suff w:num w:lvlOverride w:startOverride w:nsid w:tmpl",
);

/** Settings that change nothing of what is seen or pressed (17.15). */
const settings = nameSet(
  "w:settings w:compat w:compatSetting w:defaultTabStop w:displayBackgroundShape w:evenAndOddHeaders w:zoom",
  "w:characterSpacingControl w:footnotePr w:endnotePr w:footnote w:endnote w:themeFontLang w:clrSchemeMapping",
  "w:decimalSymbol w:listSeparator",
);

const ofLinks = nameSet("r:id w:anchor w:tooltip w:history");

/** In half points, twentieths of a point (also of what is 20 lines wide), and English metric units. */
const leastLetter = 10;
const leastLine = 100;
const leastPage = 4_000;
const farthest = 8_000;

/** What elements may not say, with why. */
const values: Record<string, (attributes: Attributes) => string | null> = {
  "w:color": ({ "w:val": colour = "" }) =>
    /^[\da-f]{6}$/i.test(colour) && !isSeenOn(`#${colour.toLowerCase()}`)
      ? "Words have the colour of the page."
      : null,
  "w:sz": ({ "w:val": size }) => (Number(size) < leastLetter ? "Words have no size." : null),
  "w:spacing": ({ "w:line": line, "w:lineRule": rule, "w:val": between = "0" }) =>
    (rule === "exact" && Number(line) < leastLine) || Math.abs(Number(between)) > leastLine
      ? "Words lie over each other, or far apart."
      : null,
  "w:ind": (attributes) =>
    Object.entries(attributes).some(
      ([name, value]) => Math.abs(Number(value)) > farthest || (!/hanging/.test(name) && Number(value) < 0),
    )
      ? "Words stand beside the page."
      : null,
  "w:pgSz": ({ "w:w": width, "w:h": height }) =>
    Number(width) < leastPage || Number(height) < leastPage ? "Pages are too small for their words." : null,
  "wp:extent": ({ cx, cy }) => (Number(cx) > 0 && Number(cy) > 0 ? null : "A picture has no size."),
  "w:hyperlink": (attributes) => {
    const other = Object.keys(attributes).find((name) => !ofLinks.has(name));
    return other === undefined ? null : `“${other}” of a link may lead it elsewhere.`;
  },
};

const isOfText = (tag: string): boolean =>
  texts.has(tag) || looks.has(tag) || drawn.has(tag) || formula.test(tag);
const isOfLists = (tag: string): boolean => lists.has(tag) || looks.has(tag);
/** What is known of the elements of each part but those of text. */
const known: Record<string, (tag: string) => boolean> = {
  "word/settings.xml": (tag) => settings.has(tag),
  "word/styles.xml": isOfLists,
  "word/numbering.xml": isOfLists,
};

/**
 * Why an element of a part may keep readers from words and links; null where it is known that it does not.
 * @param part its path in the package
 */
export function judgeTag(part: string, tag: string, attributes: Attributes): string | null {
  if (!(known[part] ?? isOfText)(tag)) return `It holds “${tag}”, which may hide words or take presses.`;
  return values[tag]?.(attributes) ?? null;
}
