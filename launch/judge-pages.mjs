import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, readdirSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, join } from "node:path";

/** Two editions each of documentation that npm packages carry. */
const editions = [
  ["fastify@4.0.0", "fastify@4.28.0"],
  ["fastify@3.0.0", "fastify@4.0.0"],
  ["undici@6.0.0", "undici@6.21.0"],
  ["pino@8.0.0", "pino@8.21.0"],
];
const seeds = 2000;
const aims = { another: 0.95, same: 0.02 };

/**
 * Puts what tells a changed page from one of another day to pairs of pages: of an invented web by a seed, and of two editions of
 * real documentation, in which a page is its own later edition (the same) or any other page of it (another). Each page is
 * wrapped in the same lists of links, as those of one site are.
 * @returns whether both aims are reached wherever pages could be had
 */
export async function judgePages() {
  const { pagePair } = await import("@vennet/core/test/changing-page");
  const { changeOf, fingerprintOf } = await import("@vennet/core/reach/fingerprint");
  const { PageReader, nothingWanted } = await import("@vennet/core/reach/page-reader");
  const printOf = (html) => {
    const reader = new PageReader(nothingWanted);
    reader.push(html);
    reader.end();
    const { title, headings, language, content } = reader.facts();
    return fingerprintOf({ title, headings, language, words: content, part: null });
  };
  console.log("| pages | became others | told | stayed the same | told wrongly |");
  console.log("| --- | --- | --- | --- | --- |");
  let isReached = true;
  const tell = (name, pairs) => {
    const count = (isAnother, isTold) =>
      pairs.filter((one) => one.isAnother === isAnother && (isTold === undefined || one.isTold === isTold))
        .length;
    const [another, same] = [count(true, true) / count(true), count(false, true) / count(false)];
    isReached &&= another >= aims.another && same <= aims.same;
    console.log(
      `| ${name} | ${count(true)} | ${another.toFixed(3)} | ${count(false)} | ${same.toFixed(3)} |`,
    );
  };
  tell(
    "an invented web",
    Array.from({ length: seeds }, (_, seed) => {
      const { then, now, isAnother } = pagePair(seed + 1);
      return { isAnother, isTold: changeOf(printOf(then), printOf(now)) !== null };
    }),
  );
  const folder = mkdtempSync(join(tmpdir(), "vennet-editions-"));
  try {
    for (const [first, second] of editions) {
      const before = await pagesOf(first, folder, "3 May 2022");
      const after = await pagesOf(second, folder, "9 June 2024");
      if (!before || !after) {
        console.log(`${first} and ${second} could not be fetched.`);
        continue;
      }
      const prints = new Map([...after].map(([name, html]) => [name, printOf(html)]));
      const pairs = [...before].flatMap(([name, html]) => {
        const print = printOf(html);
        return [...prints].map(([other, now]) => ({
          isAnother: name !== other,
          isTold: changeOf(print, now) !== null,
        }));
      });
      tell(`${first} and ${second}`, pairs);
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  return isReached;
}

/** The documentation of a package as pages of one site, by the names of its files; null where it cannot be fetched. */
async function pagesOf(name, folder, day) {
  const { importManuscript } = await import("@vennet/core/import/import-manuscript");
  const into = mkdtempSync(join(folder, "package-"));
  try {
    execFileSync("npm", ["pack", name, "--silent"], { cwd: into, stdio: "ignore", timeout: 120_000 });
    execFileSync("tar", ["xzf", readdirSync(into)[0]], { cwd: into });
  } catch {
    return null;
  }
  const paths = readdirSync(into, { recursive: true, encoding: "utf8" }).filter((path) =>
    /docs\/.*\.md$/.test(path),
  );
  const nav = `<ul>${paths.map((path) => `<li><a href="${path}">${basename(path)}</a></li>`).join("")}</ul>`;
  const pages = new Map();
  for (const path of paths) {
    const { title, chapters } = await importManuscript(
      { name: basename(path), bytes: new Uint8Array(readFileSync(join(into, path))) },
      { fallbackTitle: basename(path), baseAddress: null, pictureFor: () => null },
    );
    let body = "";
    for (const chapter of chapters)
      chapter.descendants((node) => {
        if (!node.isTextblock) return true;
        const tag = /^(?:title|heading)$/.test(node.type.name) ? "h2" : "p";
        body += `<${tag}>${escaped(node.textContent)}</${tag}>`;
        return false;
      });
    pages.set(
      basename(path),
      `<!doctype html><html lang="en"><title>${escaped(title)} | Docs</title><body><div>${nav}</div><div><p>Updated ${day}</p>${body}</div><div>${nav}${day}</div></body></html>`,
    );
  }
  return pages;
}

function escaped(text) {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}
