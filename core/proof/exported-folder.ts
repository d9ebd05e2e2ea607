import { percentDecoded } from "../destination/percent-decoded.ts";
import { unzipSync } from "fflate";
import { ProofError, type ExportedDestination } from "./exported-link.ts";

/** An exported file, and the files that were exported beside it, by their paths. */
export interface ExportedFolder {
  /** The path of the file itself; empty where it is alone. */
  name: string;
  main: Uint8Array;
  beside: ReadonlyMap<string, Uint8Array>;
}

/**
 * Opens what was exported: a folder in a zip, whose first entry is the file itself, or that file alone.
 * @throws ProofError where a zip cannot be read
 */
export function openExport(bytes: Uint8Array): ExportedFolder {
  const isZip = bytes[0] === 0x50 && bytes[1] === 0x4b;
  if (!isZip) return { name: "", main: bytes, beside: new Map() };
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes);
  } catch (error) {
    throw new ProofError("unreadable", `The folder cannot be unpacked: ${(error as Error).message}`);
  }
  const [first, ...rest] = Object.entries(files);
  if (!first) throw new ProofError("unreadable", "The folder is empty.");
  return { name: first[0], main: first[1], beside: new Map(rest) };
}

/**
 * Opens what was exported where the file is a container itself: alone, it looks like the folder.
 * @param inside a path that it has
 * @throws ProofError where a zip cannot be read
 */
export function openContainer(
  bytes: Uint8Array,
  inside: string,
): { files: Record<string, Uint8Array>; beside: ReadonlyMap<string, Uint8Array> } {
  const folder = openExport(bytes);
  const isAlone = folder.name === inside || folder.beside.has(inside);
  const { main, beside } = isAlone ? { main: bytes, beside: new Map<string, Uint8Array>() } : folder;
  try {
    return { files: unzipSync(main), beside };
  } catch (error) {
    throw new ProofError("unreadable", `The document cannot be unpacked: ${(error as Error).message}`);
  }
}

/** Where an address without a scheme leads: to a file beside the exported one. */
export function fileBeside(href: string): ExportedDestination {
  return { kind: "file", path: percentDecoded(href) };
}

/** Whether an address names its scheme. */
export function hasScheme(href: string): boolean {
  return /^[a-z][a-z0-9+.-]*:/i.test(href);
}
