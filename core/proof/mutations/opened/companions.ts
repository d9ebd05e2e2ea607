import type { Pick } from "../mutation.ts";
import type { OpenContainer } from "./open-container.ts";

/** Changes a byte of a companion file. */
export function damaged(file: OpenContainer, pick: Pick): boolean {
  const path = pick(companionsOf(file));
  if (path === undefined) return false;
  const bytes = Uint8Array.from(file.files.get(path)!);
  bytes[0] = bytes[0]! ^ 1;
  file.files.set(path, bytes);
  return true;
}

/** Leaves a companion file out. */
export function dropped(file: OpenContainer, pick: Pick): boolean {
  const path = pick(companionsOf(file));
  return path !== undefined && file.files.delete(path);
}

function companionsOf({ files }: OpenContainer): string[] {
  return [...files.keys()].filter((path) => /(^|\/)files\//.test(path) && files.get(path)!.length > 0);
}
