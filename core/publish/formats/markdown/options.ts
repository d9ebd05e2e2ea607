import { companions } from "../option.ts";

/** What an author chooses for Markdown. */
export const markdownOptions = { companions } as const;
