import { readFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { expect, test, type Page } from "@playwright/test";
import type { Book } from "@vennet/core/manuscript/book";
import { partsOfPath } from "@vennet/core/proof/companion-path";
import type { ExportedDestination } from "@vennet/core/proof/exported-link";
import { readEpub } from "@vennet/core/publish/formats/epub/read-back";
import { writeEpub } from "@vennet/core/publish/formats/epub/write-epub";
import { bookInLanguage } from "@vennet/core/test/book-in-languages";
import { bookOfEveryFeature } from "@vennet/core/test/book-of-every-feature";
import { generatedBook } from "@vennet/core/test/generated-book";
import fc from "fast-check";

// A renderer of e-books that others wrote opens every chapter and follows every link to where the proof says it leads.

const books: [string, Book][] = [
  ["the book of every feature", bookOfEveryFeature()],
  ["a book from right to left", bookInLanguage("he")],
  ...fc
    .sample(generatedBook, { seed: 2026, numRuns: 3 })
    .map((book, i): [string, Book] => [`generated book ${i + 1}`, book]),
];

for (const [what, book] of books)
  test(`another renderer follows every link of ${what} to where the proof says`, async ({ page }) => {
    const bytes = writeEpub(book);
    const { links } = readEpub(bytes);
    await openRenderer(page);
    const presses = await followAll(page, bytes);
    expect(presses).toEqual(links.map(({ destination }) => wanted(destination)));
  });

/** What a press on a link does. */
type Press = { opens: string } | { shows: string; isInView: boolean };

const wanted = (destination: ExportedDestination): Press =>
  destination.kind === "address"
    ? { opens: destination.address }
    : {
        // Which part of a file is meant, is the business of whatever shows the file.
        shows:
          destination.kind === "file" ? `EPUB/${partsOfPath(destination.path).file}` : destination.target,
        isInView: true,
      };

/** Opens an empty page into which the renderer can be loaded. */
async function openRenderer(page: Page): Promise<void> {
  const folder = dirname(fileURLToPath(import.meta.resolve("foliate-js/view.js")));
  await page.route("http://renderer.test/**", (route) => {
    const { pathname } = new URL(route.request().url());
    return pathname.endsWith(".js")
      ? route.fulfill({ body: readFileSync(join(folder, pathname)), contentType: "text/javascript" })
      : route.fulfill({ body: "<!doctype html><title>Renderer</title>", contentType: "text/html" });
  });
  await page.goto("http://renderer.test/");
}

/** What the test uses of the renderer. */
interface Renderer extends HTMLElement {
  open: (file: File) => Promise<void>;
  goTo: (place: number | string) => Promise<void>;
  book: { sections: { id: string }[] };
  lastLocation: { range: Range };
  renderer: { getContents: () => { index: number; doc: Document }[] };
}

/** Presses each link, in the order of the files, and says what the renderer did. */
async function followAll(page: Page, bytes: Uint8Array): Promise<Press[]> {
  const base64 = Buffer.from(bytes).toString("base64");
  return page.evaluate(async (book) => {
    const module = "/view.js";
    await import(module);
    const view = document.createElement("foliate-view") as Renderer;
    view.style.cssText = "display: block; width: 1000px; height: 700px";
    document.body.append(view);
    await view.open(new File([Uint8Array.from(atob(book), (letter) => letter.charCodeAt(0))], "book.epub"));
    const shown = () => view.renderer.getContents()[0]!;
    const links = () => [...(shown().doc?.querySelectorAll("a") ?? [])];

    /** What the renderer says of a press on a link. */
    const pressed = (link: Element): { name: string; href: string } | null => {
      let said: { name: string; href: string } | null = null;
      const hear = (event: Event) => {
        event.preventDefault();
        const { a, href } = (event as CustomEvent<{ a: Element; href: string }>).detail;
        // It leaves off what stands behind a “?” of any address, so what is outside is taken as the link has it.
        said = { name: event.type, href: event.type === "link" ? href : a.getAttribute("href")! };
      };
      for (const name of ["link", "external-link"]) view.addEventListener(name, hear, { once: true });
      link.dispatchEvent(new MouseEvent("click", { bubbles: true, cancelable: true }));
      for (const name of ["link", "external-link"]) view.removeEventListener(name, hear);
      return said;
    };
    const follow = async (href: string): Promise<Press> => {
      await view.goTo(href);
      const id = decodeURIComponent(href.split("#")[1] ?? "");
      const { doc, index } = shown();
      const section = view.book.sections[index]!.id;
      if (id === "" || !section.endsWith(".xhtml")) return { shows: section, isInView: true };
      const target = doc.getElementById(id);
      return { shows: id, isInView: target !== null && view.lastLocation.range.intersectsNode(target) };
    };

    const presses: Press[] = [];
    for (let section = 0; section < view.book.sections.length; section++) {
      await view.goTo(section);
      const count = links().length;
      for (let n = 0; n < count; n++) {
        await view.goTo(section);
        const said = pressed(links()[n]!);
        if (said === null) presses.push({ opens: "nothing" });
        else if (said.name === "external-link") presses.push({ opens: said.href });
        else presses.push(await follow(said.href));
      }
    }
    return presses;
  }, base64);
}
