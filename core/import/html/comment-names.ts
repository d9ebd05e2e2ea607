/**
 * Whether a name is that of a comment, as programs save those of a text at the end of its page: each under a name, to which
 * a sign in the text leads (common practice).
 */
export function isNameOfComment(name: unknown): boolean {
  return typeof name === "string" && /^(?:cmnt|_msocom_)\d+$/i.test(name);
}

/** Whether an element of a kind may be for a comment alone. */
export function mayHoldComment(tagName: string): boolean {
  return /^(?:div|section|aside|p|li|dd|td|tr|table|tbody|span|font|sup|b|i)$/.test(tagName);
}
