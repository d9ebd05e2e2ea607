import { companionOf, type BookRule } from "./finding.ts";

/** From this size on a file makes an e-book heavy to send and slow to open (common practice). */
const heavyBytes = 10_000_000;

/** A companion file that is too large to travel inside an e-book. */
export const fileLarge: BookRule = {
  id: "file-large",
  title: "A companion file is large for an e-book",
  severity: "consider",
  source: "common practice: shops and mail programs refuse heavy e-books",
  findInBook: (link, context) => {
    const file = companionOf(link, context);
    return file && file.size > heavyBytes
      ? `“${file.name}” has ${Math.round(file.size / 1_000_000)} MB. Make it smaller, or share it and link to its shared address.`
      : null;
  },
};
