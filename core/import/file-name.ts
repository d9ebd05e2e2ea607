import { percentDecoded } from "../destination/percent-decoded.ts";

/** The name of the file that a relative address names; empty for an address that is not relative. */
export function fileNameOf(address: string): string {
  if (/^([a-z][a-z0-9+.-]*:|\/\/|#)/i.test(address)) return "";
  return percentDecoded(
    address
      .replace(/[?#].*$/s, "")
      .split(/[/\\]/)
      .at(-1)!,
  );
}
