/** The kinds of blocks that are set off from the text around them. */
export const setOffKinds = ["quotation", "verse", "epigraph", "notice"] as const;

/** How a block is set off: a quotation, lines of verse, an epigraph, or a notice in a box. */
export type SetOff = (typeof setOffKinds)[number];

/** Whether a word is the name of such a kind. */
export function isSetOff(name: unknown): name is SetOff {
  return (setOffKinds as readonly unknown[]).includes(name);
}
