import { companions } from "../option.ts";

/** What an author chooses for an OpenDocument text. */
export const odtOptions = { companions } as const;
