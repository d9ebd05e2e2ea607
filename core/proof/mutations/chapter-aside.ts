import type { Mutation } from "./mutation.ts";

/** Who reads on does not come to it. */
export const chapterAside: Mutation = {
  name: "a chapter set beside the reading order",
  epub(file, pick) {
    const chapter = pick(file.find([file.pathOf(/package\.opf$/)!], /(<itemref idref="chapter-\d+")\/>/));
    if (chapter) file.replace(chapter, `${chapter.match[1]!} linear="no"/>`);
    return chapter !== undefined;
  },
};
