import { fork } from "node:child_process";
import { once } from "node:events";
import { fileURLToPath } from "node:url";
import { importManuscript } from "@vennet/core/import/import-manuscript";
import { writeDocx } from "@vennet/core/publish/formats/docx/write-docx";
import { strFromU8, unzipSync } from "fflate";
import { SaxesParser } from "saxes";
import { bookOf, longBook } from "./long-book.mjs";
import { peakMemory } from "./memory.mjs";

// Manuscripts on their way in, with their arrival proofs: a text document against unzipping it and parsing its XML, and
// 5 MB of Markdown with the memory that it takes.

const options = { fallbackTitle: "Causeways", baseAddress: null, pictureFor: () => null };
const markdown = (chapters) => ({
  name: "causeways.md",
  bytes: new TextEncoder().encode(longBook(chapters)),
});

if (process.send) {
  const { chapters } = await new Promise((resolve) => process.once("message", resolve));
  const began = performance.now();
  const { arrival } = await importManuscript(markdown(chapters), options);
  process.send({ ms: performance.now() - began, counts: arrival.counts, megabytes: peakMemory(process.pid) });
  process.disconnect();
} else {
  await textDocument(5);
  await textDocument(30);
  await textDocument(60);
  for (const chapters of [42, 245]) await ownProcess(chapters);
}

/** Each the quickest of three, since the first makes the code quick. */
async function textDocument(chapters) {
  const { chapters: docs } = await importManuscript(markdown(chapters), options);
  const { bytes } = await writeDocx(bookOf(docs), "causeways.docx");
  let [bare, brought, links] = [Infinity, Infinity, 0];
  for (let i = 0; i < 3; i++) {
    let began = performance.now();
    for (const [name, part] of Object.entries(unzipSync(bytes)))
      if (/\.(xml|rels)$/.test(name)) new SaxesParser({ xmlns: true }).write(strFromU8(part)).close();
    bare = Math.min(bare, performance.now() - began);
    began = performance.now();
    const { arrival } = await importManuscript({ name: "causeways.docx", bytes }, options);
    brought = Math.min(brought, performance.now() - began);
    links = arrival.counts.intact;
  }
  console.log(
    `A text document with ${links} links, all intact: brought in ${Math.round(brought)} ms, unzipped and parsed alone ${Math.round(bare)} ms: ratio ${(brought / bare).toFixed(2)} (aim: at most 3)`,
  );
}

async function ownProcess(chapters) {
  const child = fork(fileURLToPath(import.meta.url), { stdio: "inherit" });
  child.send({ chapters });
  const [{ ms, counts, megabytes }] = await once(child, "message");
  console.log(
    `Markdown of ${(markdown(chapters).bytes.length / 1e6).toFixed(1)} MB with ${counts.intact} links, all intact: ${(ms / 1000).toFixed(1)} s, ${megabytes} MB (aims at 5 MB: 20 s, 600 MB)`,
  );
}
