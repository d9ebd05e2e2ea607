import { usualFonts } from "@vennet/core/manuscript/book-fonts";
import { defaultConventions } from "@vennet/core/manuscript/conventions";
import { defaultLooks } from "@vennet/core/manuscript/looks";
import { defaultLayout } from "@vennet/core/manuscript/page-layout";

/** Markdown of a book of some eleven pages a chapter, each with 50 web links and 50 links inside the book. */
export function longBook(chapterCount) {
  const words =
    "low water bares the stone and the walker keeps to its seaward edge where weed is thin and posts are white".split(
      " ",
    );
  let at = 0;
  const phrase = (count) => Array.from({ length: count }, () => words[at++ % words.length]).join(" ");
  const chapters = [];
  for (let chapter = 1; chapter <= chapterCount; chapter++) {
    let text = `# Causeway ${chapter}\n\n`;
    for (let section = 1; section <= 10; section++) {
      text += `## Stretch ${chapter}-${section}\n\n`;
      for (let paragraph = 1; paragraph <= 5; paragraph++) {
        const to = `stretch-${(chapter % chapterCount) + 1}-${section}`;
        const host = `stone-${((chapter * section) % 250) + 1}.hesterley.test`;
        text += `${phrase(31)} [${phrase(3)}](https://${host}/${chapter}/${section}/${paragraph}) ${phrase(18)} [${phrase(2)}](#${to}) ${phrase(14)}.\n\n`;
      }
    }
    chapters.push(text);
  }
  return chapters.join("\n");
}

/** The imported chapters as a book, as the exports take it. */
export function bookOf(chapters) {
  return {
    id: "b7c0ffee-0000-4000-8000-000000000001",
    title: "All causeways",
    author: "Orla Tindrum",
    language: "en",
    modified: "2026-01-01T00:00:00Z",
    chapters: chapters.map((doc, i) => ({ id: String(i), role: "chapter", doc })),
    pictures: [],
    files: new Map(),
    fileBytes: new Map(),
    leavesFiles: false,
    looks: defaultLooks,
    conventions: defaultConventions,
    layout: defaultLayout,
    fonts: usualFonts,
    fontFaces: [],
  };
}
