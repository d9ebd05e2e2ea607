import { unzipSync } from "fflate";
import { damaged, ImportError } from "./errors.ts";

const mostUnpacked = 400 * 1024 * 1024;
const mostFiles = 10_000;

/**
 * The files in a container.
 * @param isWanted whether one is asked for, by its path; all are where nothing is said
 * @throws ImportError `format` where it cannot be unpacked, or is larger then than any text document is
 */
export function unpacked(
  bytes: Uint8Array,
  isWanted: (path: string) => boolean = () => true,
): Record<string, Uint8Array> {
  let size = 0;
  let count = 0;
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (!isWanted(pathOfEntry(name))) return false;
        size += originalSize;
        count += 1;
        if (size > mostUnpacked || count > mostFiles)
          throw new ImportError(
            "format",
            "The document is larger, unpacked, than any text document is. Take large pictures out of it, or bring it in parts.",
          );
        return true;
      },
    });
    return Object.fromEntries(Object.entries(files).map(([name, content]) => [pathOfEntry(name), content]));
  } catch (error) {
    if (error instanceof ImportError) throw error;
    throw damaged(`The document cannot be unpacked: ${(error as Error).message}.`);
  }
}

/** The names in a container, as who packed it means them; none where it is no such thing. */
export function namesIn(bytes: Uint8Array): string[] {
  return writtenNames(bytes).map(pathOfEntry);
}

/** The names in a container as they are written there. */
export function writtenNames(bytes: Uint8Array): string[] {
  const names: string[] = [];
  if (!isContainer(bytes)) return names;
  try {
    unzipSync(bytes, {
      filter: ({ name }) => {
        names.push(name);
        return false;
      },
    });
  } catch {
    // What cannot be opened as a container is none.
  }
  return names;
}

/**
 * The path of an entry as who packed it means it: some programs say neither that a name is in UTF-8, which it is then read
 * as, byte by byte, nor part folders by slashes (APPNOTE 6.3.3, 4.4.17 and appendix D; common practice).
 */
export function pathOfEntry(name: string): string {
  return inUtf8(name).replaceAll("\\", "/");
}

function inUtf8(name: string): string {
  if (!/[\x80-\xff]/.test(name) || /[^\0-\xff]/.test(name)) return name;
  try {
    const bytes = Uint8Array.from(name, (letter) => letter.charCodeAt(0));
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return name;
  }
}

/** What a container says that it is (OpenDocument 1.3, part 2, 3.3; EPUB 3.3, 4.2.3); empty where it says nothing. */
export function mimetypeIn(bytes: Uint8Array): string {
  return textIn(bytes, "mimetype", 200).trim();
}

/** A short text in a container, by its path; empty where that is none, or is no short one. @param most how many bytes it has */
export function textIn(bytes: Uint8Array, path: string, most: number): string {
  if (!isContainer(bytes)) return "";
  try {
    const files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => pathOfEntry(name) === path && originalSize < most,
    });
    return new TextDecoder().decode(Object.values(files)[0] ?? new Uint8Array());
  } catch {
    return "";
  }
}

function isContainer(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b;
}
