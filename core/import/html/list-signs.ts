/** Whether a paragraph is an item of a list, by its class or its style, as text programs save them (common practice). */
export function isListed(classes: string, style: string): boolean {
  return /(^|\s)\w*List(Paragraph|Bullet|Number)/i.test(classes) || /(^|;)\s*mso-list\s*:\s*l\d/i.test(style);
}

/** Whether words are the sign of an item: a dot or the like, or a number or letter with what closes it. */
export function isSignOfItem(words: string): boolean {
  return /^\(?(?:\d{1,3}|[a-z]|[ivxlc]{1,6})[.)]$|^[^\p{L}\d\s]$|^[ovqüØ§]$/iu.test(words.trim());
}

/** Whether words are the blanks, one of them unbreakable, by which a sign is set apart from what it stands before. */
export function isSpaceBehindSign(words: string): boolean {
  return /^\s*\u00a0\s*$/.test(words);
}

const pointsOf: Readonly<Record<string, number>> = { pt: 1, in: 72, cm: 28.35, mm: 2.835, px: 0.75 };
/** By so much text programs bring in each level of a list. */
const pointsOfLevel = 36;

/** How deep in lists an item lies, from 1, as its style says it or by its margin. */
export function levelOfItem(style: string): number {
  const said = /mso-list\s*:[^;]*\blevel(\d)/i.exec(style)?.[1];
  if (said !== undefined) return Number(said);
  const [, margin, unit] = /margin-left\s*:\s*([\d.]+)\s*(pt|in|cm|mm|px)/i.exec(style) ?? [];
  return margin === undefined
    ? 1
    : Math.max(1, Math.round((Number(margin) * pointsOf[unit!.toLowerCase()]!) / pointsOfLevel));
}
