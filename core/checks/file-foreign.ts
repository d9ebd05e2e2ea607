import { companionOf, type BookRule } from "./finding.ts";

// EPUB 3.3, section 3.2 (from memory): the core media types, which every e-reader has to open.
const opened =
  /^(?:image\/(?:gif|jpeg|png|svg\+xml|webp)|audio\/(?:mpeg|mp4|ogg)|application\/xhtml\+xml|text\/css)$/;

/** A companion file of a type that e-readers do not open. */
export const fileForeign: BookRule = {
  id: "file-foreign",
  title: "E-readers do not open a companion file",
  severity: "consider",
  source: "EPUB 3.3, section 3.2, core media types (from memory)",
  findInBook: (link, context) => {
    const file = companionOf(link, context);
    return file && !opened.test(file.mediaType)
      ? `E-readers do not open “${file.name}” (${file.mediaType}). They show a page that names it, unless a companion page says the same.`
      : null;
  },
};
