import { fileTypeFromBuffer } from "file-type";
import { extension, lookup } from "mime-types";

/** How many bytes from the start of a file tell its type. */
export const sampleSize = 4100;

/** What a file is by its content, and whether its name's ending says something else. */
export interface JudgedType {
  mediaType: string;
  /** A sentence for the author where name and content disagree, else null. */
  warning: string | null;
}

/**
 * Judges a file by its first bytes. Text has no mark of its own, so of plain text the ending says which
 * kind it is.
 */
export async function judgeMediaType(sample: Uint8Array, name: string): Promise<JudgedType> {
  const claimed = lookup(name) || null;
  const detected = (await fileTypeFromBuffer(sample))?.mime ?? null;
  if (detected) {
    // Office documents and e-books are zip files by their first bytes.
    const isZipBased =
      detected === "application/zip" && claimed !== null && /zip|openxml|opendocument|epub/.test(claimed);
    const isMarkup = /xml$/.test(detected) && claimed !== null && /xml|svg|html/.test(claimed);
    if (isZipBased || isMarkup) return { mediaType: claimed, warning: null };
    const same = claimed === null || claimed === detected || kindOf(claimed) === kindOf(detected);
    return {
      mediaType: detected,
      warning: same
        ? null
        : `The name of “${name}” ends like ${article(claimed)}, but the file is ${article(detected)}. Readers’ devices go by the name.`,
    };
  }
  if (!isText(sample)) {
    const warning =
      claimed && !/octet-stream/.test(claimed)
        ? `The name of “${name}” ends like ${article(claimed)}, but nothing in the file says so.`
        : null;
    return { mediaType: "application/octet-stream", warning };
  }
  if (claimed && /^text\/|json$|xml$|javascript$|svg/.test(claimed))
    return { mediaType: claimed, warning: null };
  return {
    mediaType: "text/plain",
    warning: claimed
      ? `The name of “${name}” ends like ${article(claimed)}, but the file is plain text.`
      : null,
  };
}

function kindOf(mediaType: string): string {
  return extension(mediaType) || mediaType;
}

function article(mediaType: string): string {
  const word = (extension(mediaType) || mediaType).toUpperCase();
  return `${/^[AEFHILMNORSX]/.test(word) ? "an" : "a"} ${word} file`;
}

function isText(sample: Uint8Array): boolean {
  if (sample.includes(0)) return false;
  try {
    // The sample may end inside a character; then only its last bytes are in doubt.
    new TextDecoder("utf-8", { fatal: true }).decode(sample, { stream: true });
    return true;
  } catch {
    return false;
  }
}
