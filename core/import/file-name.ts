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

/**
 * Names of files, or their paths, as who wrote a manuscript means them: to the letter, else as the disks of many authors
 * take them, which tell neither case nor how a letter and its mark are put together (NFC), where that is one file alone.
 */
export class FileNames {
  private readonly exact: ReadonlySet<string>;
  private readonly alike = new Map<string, string | null>();

  constructor(names: Iterable<string>) {
    this.exact = new Set(names);
    for (const name of this.exact) {
      const key = folded(name);
      this.alike.set(key, this.alike.has(key) ? null : name);
    }
  }

  /** The name of the file that is meant by a name; null for none, or more than one. */
  meant(name: string): string | null {
    return this.exact.has(name) ? name : (this.alike.get(folded(name)) ?? null);
  }
}

function folded(name: string): string {
  return name.normalize("NFC").toLowerCase();
}
