import { noDeviceName } from "@vennet/core/publish/device-names";

/** UTF-16 units; with what is put before it, a name stays below the 255 bytes of most systems. */
const longest = 60;

/**
 * A name that is one folder's or file's on every system: without signs that one of them forbids or that change how it is read,
 * and not too long. Its ending stays, which says with what a file opens.
 */
export function plainName(name: string): string {
  const plain = name.replace(/[/\\:*?"<>|\p{Cc}\p{Bidi_Control}]/gu, "-").replace(/^[. ]+|[. ]+$/g, "");
  const ending = /\.[^. ]{1,12}$/.exec(plain)?.[0] ?? "";
  const stem = plain.slice(0, plain.length - ending.length).slice(0, longest);
  // Half of a letter is none.
  return noDeviceName(stem.replace(/[\ud800-\udbff]$/, "").trimEnd() + ending) || "untitled";
}
