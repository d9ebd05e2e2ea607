/** What of a text may be none of its signs; halves of letters beyond the first plane are looked at by their pairs later. */
const doubtful = /[\0-\x08\v\f\x0e-\x1f\x7f-\x9f\ud800-\udfff\ufdd0-\ufdef\ufeff\ufff9-\uffff]/;
/** The same in JSON, where some are written by their numbers (RFC 8259, 7). */
const doubtfulJson = new RegExp(
  `${doubtful.source}|\\\\(?:[bf]|u(?:00[01]|007f|00[89]|d[89a-f]|fdd|fdef|feff|fff))`,
  "i",
);

const unwritable = /[\0-\x08\x0e-\x1f\x7f\ufeff\ufff9-\ufffc]|\p{Cs}|\p{Noncharacter_Code_Point}/gu;

/** What Windows-1252 has where Unicode has control characters, from U+0080 on; a blank where it has nothing either. */
const windows1252 = "€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ";

/**
 * A text without what no file holds as a sign of a text: control characters and halves of letters (XML 1.0, 2.2),
 * noncharacters, marks of the order of bytes, of annotations and of objects that did not come along (Unicode 23.7 and
 * 23.8; ISO 14289-1, 7.21.8). Breaks of lines and pages that stand for themselves become blanks; the control characters
 * from U+0080 on are what Windows-1252 has there (WHATWG HTML, 13.2.5.80).
 */
export function writableText(text: string): string {
  if (!doubtful.test(text)) return text;
  return text
    .replace(/[\v\f]/g, " ")
    .replace(/[\x80-\x9f]/g, (sign) => windows1252[sign.charCodeAt(0) - 0x80]!.trim())
    .replace(unwritable, "");
}

/** Whether a JSON text may have such signs in its texts: seldom true, so that few are gone through. */
export function mayHoldUnwritable(json: string): boolean {
  return doubtfulJson.test(json);
}

/**
 * A value of JSON with all texts in it made writable; the same one where they are. Of a document, texts of which nothing
 * is left are gone, since none may be empty.
 */
export function writableValue<T>(value: T): T {
  if (typeof value === "string") return writableText(value) as T;
  if (typeof value !== "object" || value === null) return value;
  if (Array.isArray(value)) {
    const items = value.map(writableValue);
    const isSame = items.every((item, i) => item === value[i]);
    return isSame ? value : (items.filter((item) => !isEmptyText(item)) as T);
  }
  const changed = Object.entries(value).flatMap(([name, one]) => {
    const writable = writableValue<unknown>(one);
    return writable === one ? [] : [[name, writable] as const];
  });
  return changed.length > 0 ? { ...value, ...Object.fromEntries(changed) } : value;
}

function isEmptyText(value: unknown): boolean {
  const { type, text } = (value ?? {}) as { type?: unknown; text?: unknown };
  return type === "text" && text === "";
}
