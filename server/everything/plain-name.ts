/** UTF-16 units; with what is put before it, a name stays below the 255 bytes of most systems. */
const longest = 60;
/** What Windows keeps for devices, whatever the ending. */
const reserved = /^(con|prn|aux|nul|com\d|lpt\d)(?=\.|$)/i;

/**
 * A name that is one folder's or file's on every system: without signs that one of them forbids or that change how it is read,
 * and not too long. Its ending stays, which says with what a file opens.
 */
export function plainName(name: string): string {
  const plain = name
    .replace(/[/\\:*?"<>|\p{Cc}\p{Bidi_Control}]/gu, "-")
    .replace(/^[. ]+|[. ]+$/g, "")
    .replace(reserved, "$1-");
  const ending = /\.[^. ]{1,12}$/.exec(plain)?.[0] ?? "";
  const letters = [...plain.slice(0, plain.length - ending.length)];
  while (letters.join("").length > longest) letters.pop();
  return letters.join("").trimEnd() + ending || "untitled";
}
