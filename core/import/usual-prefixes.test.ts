import { expect, test } from "@jest/globals";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { prepare } from "../publish/prepare.ts";
import { exportOptions } from "../publish/formats/formats.ts";
import { writeDocx } from "../publish/formats/docx/write-docx.ts";
import { writeOdt } from "../publish/formats/odt/write-odt.ts";
import { bring } from "../test/brought.ts";
import { bookOf } from "../test/sample-book.ts";

const text = `# Walks

See [the posts](#posts), [the office](https://tides.hesterley.example/) and a note[^1].

## The *posts* {#posts}

| Hut | Post |
| --- | --- |
| [old](https://huts.hesterley.example/) | new |

[^1]: Ask [the warden](mailto:warden@hesterley.example).
`;

/** A document whose elements and attributes have other prefixes than usual, where those are declared. */
function withOtherPrefixes(bytes: Uint8Array, prefixes: readonly string[]): Uint8Array {
  const files = Object.entries(unzipSync(bytes)).map(([path, content]) => {
    if (!/^(word\/(document|styles|footnotes)|content|styles)\.xml$/.test(path)) return [path, content];
    const renamed = prefixes.reduce(
      (xml, prefix) =>
        xml
          .replaceAll(`xmlns:${prefix}=`, `xmlns:other-${prefix}=`)
          .replace(new RegExp(`(</?|\\s)${prefix}:(?=[\\w-]+)`, "g"), `$1other-${prefix}:`),
      strFromU8(content),
    );
    return [path, strToU8(renamed)];
  });
  return zipSync(Object.fromEntries(files) as Record<string, Uint8Array>);
}

test.each([
  [
    "a text document",
    ["w", "r", "wp", "a"],
    async () =>
      (await writeDocx(prepare(bookOf(text), exportOptions({ format: "docx" })), "walks.docx")).bytes,
  ],
  [
    "an OpenDocument text",
    ["text", "xlink", "table", "office", "style"],
    () => writeOdt(prepare(bookOf(text), exportOptions({ format: "odt" })), "walks.odt").bytes,
  ],
] as [string, string[], () => Uint8Array | Promise<Uint8Array>][])(
  "%s may call its namespaces as it likes",
  async (_, prefixes, write) => {
    const { arrival } = await bring(withOtherPrefixes(await write(), prefixes));
    expect(arrival!.counts).toMatchObject({ intact: 4, changed: 0, lost: 0, extra: 0 });
  },
);
