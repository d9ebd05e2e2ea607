import { choice, companions, type Chosen } from "../option.ts";

/** What an author chooses for web pages. */
export const webOptions = {
  pages: choice(["one", "chapters"], "For the web: one page, or a folder with a page for each chapter."),
  companions,
} as const;

export type WebOptions = Chosen<typeof webOptions>;
