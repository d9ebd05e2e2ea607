import { fork } from "node:child_process";
import { once } from "node:events";
import { fileURLToPath } from "node:url";
import { PDFDocument } from "@cantoo/pdf-lib";
import { openFinished } from "@vennet/core/finished/pdf/open-finished";
import { pagesOf, readFinishedPdf } from "@vennet/core/finished/pdf/read-finished";
import { proveSaved } from "@vennet/core/finished/pdf/prove-saved";
import { saveFinishedPdf } from "@vennet/core/finished/pdf/save-finished";
import { proveSavedEpub } from "@vennet/core/finished/epub/prove-saved";
import { readFinishedEpub } from "@vennet/core/finished/epub/read-finished";
import { saveFinishedEpub } from "@vennet/core/finished/epub/save-finished";
import { strFromU8, strToU8, unzipSync, zipSync } from "fflate";
import { SaxesParser } from "saxes";
import { getDocument } from "pdfjs-dist/legacy/build/pdf.mjs";
import { leaflet } from "./leaflet.mjs";
import { peakMemory } from "./memory.mjs";

// Finished files. PDFs: reading their links against a bare loop of pdf.js over the annotations, saving a hundred changes against
// reading and writing the file through the library alone, and the memory that all of it takes, each in a process of its own. E-books: reading, saving a hundred changes and proving against unpacking them and parsing their pages alone.

const sizes = [
  [50, 250],
  [200, 800],
  [1200, 2000],
];
const names = { files: new Map(), places: new Map() };

if (process.send) {
  const { bytes, what } = await new Promise((resolve) => process.once("message", resolve));
  process.send({
    ...(await measured(new Uint8Array(Buffer.from(bytes, "base64")), what)),
    megabytes: peakMemory(process.pid),
  });
  process.disconnect();
} else {
  for (const [pages, links] of sizes) {
    const bytes = await leaflet(pages, links);
    const result = {};
    for (const what of ["annotations", "objects", "whole", "library", "save", "prove"])
      result[what] = await inProcess(bytes, what);
    const ratio = (one, other) => (result[one].ms / result[other].ms).toFixed(2);
    const seconds = (one) => `${(result[one].ms / 1000).toFixed(2)} s`;
    console.log(
      `A PDF of ${pages} pages and ${(bytes.length / 1e6).toFixed(1)} MB with ${result.whole.links} links: links read in ${seconds("objects")}, ${ratio("objects", "annotations")} of a bare loop of pdf.js (aim: at most 1.5); with the words beneath ${seconds("whole")}; 100 changes saved in ${seconds("save")}, ${ratio("save", "library")} of reading and writing it (aim: at most 2); proven in ${seconds("prove")}; at most ${Math.max(...["whole", "save", "prove"].map((one) => result[one].megabytes))} MB`,
    );
  }
}

if (!process.send)
  for (const [pages, links] of sizes) {
    const bytes = almanac(pages, links);
    const best = (work) =>
      Math.min(
        ...Array.from({ length: 3 }, () => {
          const began = performance.now();
          work();
          return performance.now() - began;
        }),
      );
    const bare = best(() => {
      for (const [name, content] of Object.entries(unzipSync(bytes)))
        if (name.endsWith(".xhtml")) new SaxesParser().write(strFromU8(content)).close();
    });
    const read = readFinishedEpub(bytes).pages;
    const asked = edited(read);
    const saved = saveFinishedEpub(bytes, asked).bytes;
    const times = {
      read: best(() => readFinishedEpub(bytes)),
      saved: best(() => saveFinishedEpub(bytes, asked)),
      proven: best(() => {
        if (!proveSavedEpub(bytes, saved, asked, names).complete)
          throw new Error("The proof is not complete.");
      }),
    };
    const told = Object.entries(times).map(
      ([what, ms]) => `${what} in ${(ms / 1000).toFixed(2)} s, ratio ${(ms / bare).toFixed(1)}`,
    );
    console.log(
      `An e-book of ${pages} pages and ${(bytes.length / 1e6).toFixed(2)} MB with ${read.flatMap((page) => page.links).length} links, against unpacking it and parsing its pages (${(bare / 1000).toFixed(2)} s): ${told.join("; ")}`,
    );
  }

async function inProcess(bytes, what) {
  const child = fork(fileURLToPath(import.meta.url), { stdio: "inherit" });
  child.send({ bytes: Buffer.from(bytes).toString("base64"), what });
  const [result] = await once(child, "message");
  return result;
}

/** The quickest of three, since the first makes the code quick. */
async function measured(bytes, what) {
  const asked =
    what === "save" || what === "prove" ? edited(pagesOf((await openFinished(bytes)).document)) : null;
  const saved = what === "prove" ? (await saveFinishedPdf(bytes, asked, names)).bytes : null;
  let [ms, links] = [Infinity, 0];
  for (let i = 0; i < 3; i++) {
    const began = performance.now();
    switch (what) {
      case "annotations": {
        const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
        for (let number = 1; number <= document.numPages; number++)
          await (await document.getPage(number)).getAnnotations();
        await document.loadingTask.destroy();
        break;
      }
      case "objects":
        pagesOf((await openFinished(bytes)).document);
        break;
      case "whole":
        links = (await readFinishedPdf(bytes)).pages.reduce((sum, page) => sum + page.links.length, 0);
        break;
      case "library":
        await (await PDFDocument.load(bytes)).save();
        break;
      case "save":
        await saveFinishedPdf(bytes, asked, names);
        break;
      case "prove":
        if (!(await proveSaved(bytes, saved, asked, names)).complete)
          throw new Error("The proof is not complete.");
    }
    ms = Math.min(ms, performance.now() - began);
  }
  return { ms, links };
}

/** A hundred links of a file described. */
function edited(pages) {
  let left = 100;
  return pages.map((page) => ({
    ...page,
    links: page.links.map((link) => (left-- > 0 ? { ...link, description: `To the tables, ${left}` } : link)),
  }));
}

/** An e-book of pages of some hundred words each, with links to the web and to other pages. */
function almanac(pageCount, linkCount) {
  const words = "low water bares the stone and the walker keeps to its seaward edge where weed is thin";
  const each = linkCount / pageCount;
  const pages = Array.from({ length: pageCount }, (_, number) => {
    const links = Array.from(
      { length: Math.round(each * (number + 1)) - Math.round(each * number) },
      (_, i) =>
        i % 2
          ? `<p>${words} <a href="p${(number * 7 + i) % pageCount}.xhtml#low">to low water</a> ${words}.</p>`
          : `<p>${words} <a href="https://stone-${i}.hesterley.test/${number}">the stone</a> ${words}.</p>`,
    );
    return `<html xmlns="http://www.w3.org/1999/xhtml"><head><title>Page ${number}</title></head><body><h1 id="low">Low water ${number}</h1>${links.join("")}</body></html>`;
  });
  const items = pages.map(
    (_, i) => `<item id="p${i}" href="p${i}.xhtml" media-type="application/xhtml+xml"/>`,
  );
  const opf = `<package xmlns="http://www.idpf.org/2007/opf"><metadata/><manifest>${items.join("")}</manifest><spine>${pages.map((_, i) => `<itemref idref="p${i}"/>`).join("")}</spine></package>`;
  return zipSync({
    mimetype: [strToU8("application/epub+zip"), { level: 0 }],
    "META-INF/container.xml": strToU8(
      '<container><rootfiles><rootfile full-path="book.opf"/></rootfiles></container>',
    ),
    "book.opf": strToU8(opf),
    ...Object.fromEntries(pages.map((page, i) => [`p${i}.xhtml`, strToU8(page)])),
  });
}
