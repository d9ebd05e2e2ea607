import { describe, expect, test } from "@jest/globals";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";

// How many files a new one of each sort changes outside its own, counted on one that is there: the files that name it.
// `docs/architecture.md` has the same table.

const root = join(import.meta.dirname, "..");
const written = /(^|\/)(node_modules|dist)\/|\.test\.tsx?$|(^|\/)test\/|\/schema\.d\.ts$/;
const sources = ["core", "server", "web"].flatMap((room) =>
  readdirSync(join(root, room), { recursive: true, encoding: "utf8" })
    .map((path) => `${room}/${path}`)
    .filter((path) => /\.(ts|tsx|typ)$/.test(path) && !written.test(path)),
);
const textOf = new Map(sources.map((path) => [path, readFileSync(join(root, path), "utf8")]));

/** The files that say something, apart from those that are the thing itself. */
function naming(what: RegExp, own: RegExp, among = /^/): string[] {
  return sources.filter((path) => among.test(path) && !own.test(path) && what.test(textOf.get(path)!)).sort();
}

/** The number that the table in the architecture has in a row. */
function documented(row: string): number {
  const page = readFileSync(join(root, "docs/architecture.md"), "utf8");
  const [, count] = new RegExp(`^\\| *${row} *\\| *(\\d+) *\\|`, "m").exec(page) ?? [];
  return Number(count);
}

describe("a new one changes, outside its own folder or file:", () => {
  test.each([
    {
      row: "importer",
      // An export format of that name is another matter.
      files: naming(/\bodt\b/i, /^core\/import\/odt\//, /^(core|server|web)\/(import|workers)\//),
      most: 2,
    },
    {
      row: "export format",
      // So is a manuscript or a companion file of that type, and what a server sends; and each damage tries the formats that it can.
      files: naming(
        /\bdocx\b/,
        /^core\/publish\/formats\/docx\/|^web\/export\/formats\/docx\.tsx$/,
        /^(?!core\/(checks|reach|import|proof\/mutations)\/)/,
      ),
      most: 2,
    },
    { row: "check", files: naming(/\bfile-untold\b/, /^core\/checks\/file-untold\.ts$/), most: 2 },
    {
      row: "kind of destination",
      files: naming(/\btelephone\b/i, /^core\/destination\/kinds\/telephone\.ts$/),
      most: 3,
    },
    { row: "job", files: naming(/\/import\/import[.-]/, /^server\/import\//, /^server\//), most: 2 },
    {
      row: "role on every route",
      files: naming(/findOneBy\(Book, \{ id, accountId/, /^$/, /^server\//),
      most: 1,
    },
  ])("$row", ({ row, files, most }) => {
    expect(files.length).toBeGreaterThan(0);
    expect({ files, count: files.length }).toEqual({ files, count: documented(row) });
    expect(files.length).toBeLessThanOrEqual(most);
  });

  test("a format's id is asked for nowhere but in its own folder", () => {
    expect(
      naming(/format === ["'`]/, /^core\/publish\/formats\/\w+\/|^web\/export\/formats\/\w+\.tsx$/),
    ).toEqual([]);
  });
});

test("no source file is over 400 lines", () => {
  const long = [...textOf].filter(([, text]) => text.split("\n").length > 401).map(([path]) => path);
  expect(long).toEqual([]);
});
