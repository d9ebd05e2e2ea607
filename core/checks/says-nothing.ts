import { urlOf } from "../destination/url-of.ts";
import type { LinkUse } from "../manuscript/links.ts";
import { isEmptyPhrase } from "./empty-phrases.ts";
import type { ChapterRule } from "./finding.ts";
import { wordsOf } from "./folded-words.ts";
import { nodeAt, textBeside } from "../manuscript/positions.ts";

/** So many letters of its paragraph are read on either side; three words are among them. */
const lettersAround = 200;

// Three words beside it in its paragraph may tell what the link itself does not.
const contextWords = /\p{L}\P{L}+\p{L}+\P{L}+\p{L}/u;

/** A link called “here” or “read more”, with no word of where it leads. */
export const saysNothing: ChapterRule = {
  id: "says-nothing",
  title: "The words say nothing by themselves",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4 and 2.4.9, failures F63 and F84, technique G91",
  findInChapter: (doc, links, { language }) =>
    links
      .filter((use) => use.on !== "reference" && isEmptyPhrase(wordsOf(use), language))
      .flatMap((use) => {
        if (isNameOfHost(use)) return [];
        const linked = nodeAt(doc, use.from);
        // Words that are set as code are the name of something: `CONTINUE`.
        if (linked?.marks.some(({ type }) => type.name === "code")) return [];
        const { before, after } = textBeside(doc, use, lettersAround);
        const hasContext = use.on === "words" && contextWords.test(before + after);
        return [
          {
            subject: use.id,
            message: hasContext
              ? `“${use.text.trim()}” says where it leads only with its sentence. Who goes from link to link hears it alone: say it in words.`
              : `“${use.text.trim()}” does not say where it leads. Say it in words.`,
          },
        ];
      }),
};

/** Whether the words are what the host is called, so that they do say where the link leads: “Go” to go.test. */
function isNameOfHost({ text, destination }: LinkUse): boolean {
  if (destination.kind !== "web") return false;
  return urlOf(destination).hostname.split(".").slice(0, -1).includes(text.trim().toLowerCase());
}
