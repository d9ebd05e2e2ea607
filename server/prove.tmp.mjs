import { readFileSync } from "node:fs";
import { importManuscript } from "@vennet/core/import/import-manuscript";
const verbose = process.env.V;
let total = {};
for (const path of process.argv.slice(2)) {
  const bytes = new Uint8Array(readFileSync(path));
  try {
    const t = Date.now();
    const { arrival } = await importManuscript(
      { name: path.split("/").at(-1), bytes },
      { fallbackTitle: "x", baseAddress: null, pictureFor: () => null },
    );
    const sorts = {};
    for (const l of arrival.links) {
      total[l.verdict] = (total[l.verdict] ?? 0) + 1;
      if (l.verdict !== "intact") (sorts[`${l.verdict}: ${l.sort}`] ??= []).push(l);
    }
    console.log(path.slice(-50), JSON.stringify(arrival.counts), Date.now() - t);
    for (const [s, ls] of Object.entries(sorts)) {
      console.log("   ", ls.length, s);
      if (verbose && !/not brought/.test(s))
        for (const l of ls.slice(0, +verbose))
          console.log("        ", l.where, "|", l.words, "|", l.href, "|", l.reason);
    }
  } catch (e) {
    console.log(path, e.code ?? e.stack);
  }
}
console.log(total);
