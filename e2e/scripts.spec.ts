import { execFile } from "node:child_process";
import { copyFileSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { promisify } from "node:util";
import { strFromU8, unzipSync } from "fflate";
import { expect, test } from "./fixtures";

const root = join(import.meta.dirname, "..");

test("the script in the guide to HTTP signs in, brings in, checks, exports, downloads and ends as it says, as it stands there", async ({
  baseURL,
}) => {
  const page = readFileSync(join(root, "docs/http.md"), "utf8");
  const [script, nightly] = [...page.matchAll(/```sh\n([\s\S]*?)```/g)].map(([, lines]) => lines!) as [
    string,
    string,
  ];
  expect(script.trim().split("\n").length).toBeLessThanOrEqual(10);
  const folder = mkdtempSync(join(tmpdir(), "vennet-script-"));
  writeFileSync(
    join(folder, "walks.md"),
    "# Walks\n\n![Map](map.png)\n\n[The office](https://tides.hesterley.example/) and [gone](https://tides.hesterley.example/tables/2019).",
  );
  copyFileSync(join(root, "demo/manuscript/pictures/monks-path.png"), join(folder, "map.png"));
  const run = (lines: string) =>
    promisify(execFile)("bash", ["-eu", "-c", lines.replace("http://127.0.0.1:4600", baseURL!)], {
      cwd: folder,
    });
  const { stdout } = await run(script);
  expect(stdout).toContain('"message":"1 sound, 1 broken"');
  expect(stdout).toContain('"reason":"The server has no page at this address (404)."');
  expect(stdout).toContain("All 2 links are in the file.");
  const book = unzipSync(readFileSync(join(folder, "walks.epub")));
  expect(strFromU8(book["EPUB/chapter-001.xhtml"]!)).toMatch(
    /<a class="web" href="https:\/\/tides\.hesterley\.example\/" id="\w+">The office<\/a>/,
  );
  expect(Object.keys(book).some((name) => name.endsWith(".png"))).toBe(true);

  // The nightly script ends with 1, since a link is broken and nothing stops the export.
  await expect(run(script + nightly)).rejects.toMatchObject({ code: 1 });
});
