import type { FinishedFormat } from "@vennet/core/finished/finished-format";

/** What an author is told of finished files of a format. */
interface FormatWords {
  name: string;
  /** How a version is written and compared. */
  howSaved: string;
  /** What is said where its structure is not told; null where it always is. */
  untagged: string | null;
}

export const formatWords: Readonly<Record<FinishedFormat, FormatWords>> = {
  pdf: {
    name: "Finished PDF",
    howSaved:
      "What you changed is written behind the bytes of the file that came, which stay as they are. The saved file is then read back, and compared with what you asked and with the file that came: every link, page, entry of the outline and letter.",
    untagged:
      "This file is not tagged: programs that read pages aloud find its links by their descriptions only.",
  },
  epub: {
    name: "Finished e-book",
    howSaved:
      "What you changed is written into the pages concerned, and there into the links alone; all other files in the e-book keep their bytes. The saved file is then read back, and compared with what you asked and with the file that came: every link, page, file and letter.",
    untagged: null,
  },
};
