import { flag, type Chosen } from "../option.ts";

/** What an author chooses for an e-book. */
export const epubOptions = {
  fonts: flag(false, "For an e-book: its letters inside."),
  pageList: flag(true, "For an e-book: where the pages of the last PDF begin."),
} as const;

export type EpubOptions = Chosen<typeof epubOptions>;
