import { companions } from "../option.ts";

/** What an author chooses for a text document. */
export const docxOptions = { companions } as const;
