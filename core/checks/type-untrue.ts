import { companionOf, answerOf, type CheckContext, type CheckedLink, type BookRule } from "./finding.ts";

/** Kinds of files as words name them, and the media types that they have (IANA; from memory). */
const kinds: Record<string, RegExp> = {
  pdf: /^application\/(?:x-)?pdf$/,
  docx: /wordprocessingml|msword/,
  odt: /opendocument\.text/,
  xlsx: /spreadsheetml|ms-excel/,
  pptx: /presentationml|ms-powerpoint/,
  epub: /epub/,
  zip: /zip|compressed/,
  csv: /^text\/|csv|excel/,
  mp3: /^audio\//,
  mp4: /^video\//,
};
/** What is sent where a server does not know, or does not say, what it is. */
const unspoken =
  /^(?:application\/(?:octet-stream|x-download|force-download|download)|binary\/octet-stream)$/;

/** Words that promise a file of one kind, where another comes. */
export const typeUntrue: BookRule = {
  id: "type-untrue",
  title: "The words promise another kind of file",
  severity: "fix",
  source: "WCAG technique H33 and G91 (from memory): what the words say of a file is so",
  findInBook: (link, context) => {
    const said = /[([]\s*(?:as\s+)?(pdf|docx|odt|xlsx|pptx|epub|zip|csv|mp3|mp4)\b[^)\]]*[)\]]/i.exec(
      link.text,
    )?.[1];
    const type = said && typeOf(link, context);
    if (!said || !type || unspoken.test(type) || kinds[said.toLowerCase()]!.test(type)) return null;
    const comes = /^(?:text\/html|application\/xhtml\+xml)$/.test(type) ? "a web page" : type;
    return `The words promise ${said.toUpperCase()}, and ${comes} comes. Change the words, or lead to the file.`;
  },
};

function typeOf(link: CheckedLink, context: CheckContext): string | null {
  const file = companionOf(link, context);
  if (file) return file.mediaType;
  const answer = answerOf(link, context);
  return answer?.state === "sound" || answer?.state === "moved" ? answer.type : null;
}
