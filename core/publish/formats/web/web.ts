import { asFolder } from "../../export-folder.ts";
import { fontWarnings, foreseeFonts } from "../../own-fonts.ts";
import type { Format } from "../format.ts";
import { webOptions } from "./options.ts";
import { readWebPage } from "./read-back.ts";
import { writeWebFolder } from "./web-folder.ts";
import { writeWebPage } from "./web-page.ts";

/** Web pages: one that needs nothing beside it but companion files, or a folder with one for each chapter. */
export const web: Format<typeof webOptions> = {
  mediaType: "text/html",
  suffix: "html",
  doing: "Writing the web page",
  options: webOptions,
  hasPages: false,
  becomes: { area: "Each area is a link in its exact shape, without script." },
  foresees: (book) => foreseeFonts(book, "web"),
  write: (book, { pages }, { name }) => {
    const written =
      pages === "chapters"
        ? { bytes: writeWebFolder(book), isFolder: true }
        : asFolder(book, name, writeWebPage(book));
    return { ...written, warnings: fontWarnings(book, "web") };
  },
  readBack: readWebPage,
};
