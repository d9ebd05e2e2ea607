import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { leaflet } from "./leaflet.mjs";
import { Spread } from "./spread.mjs";
import { jobDone, withPage } from "./with-page.mjs";

// A finished PDF from the press that opens it to its first page with links on the screen, beside bare pdf.js that fetches the
// same file from the same server and paints the same page, each in a page that is loaded already.

const sizes = [
  [50, 250],
  [200, 800],
  [1200, 2000],
];
const rounds = 7;
const library = (name) =>
  readFileSync(fileURLToPath(import.meta.resolve(`pdfjs-dist/build/${name}`)), "utf8");

await withPage(async ({ page, browser }) => {
  const bare = await browser.newPage({ viewport: { width: 1280, height: 800 }, bypassCSP: true });
  await bare.context().addCookies(await page.context().cookies());
  const origin = new URL((await page.request.get("/api/health")).url()).origin;
  const served = {
    "/bare": "<canvas></canvas>",
    "/bare.mjs": library("pdf.mjs"),
    "/bare-worker.mjs": library("pdf.worker.mjs"),
  };
  for (const [path, body] of Object.entries(served))
    await bare.route(`${origin}${path}`, (route) =>
      route.fulfill({ body, contentType: path.endsWith("mjs") ? "text/javascript" : "text/html" }),
    );
  for (const [pages, links] of sizes) {
    const buffer = Buffer.from(await leaflet(pages, links));
    const file = { name: `leaflet-${pages}.pdf`, mimeType: "application/pdf", buffer };
    const { id } = await (await page.request.post("/api/books/finished", { multipart: { file } })).json();
    await jobDone(page, id);
    const { bookId } = await (await page.request.get(`/api/jobs/${id}`)).json();
    const times = { own: [], bare: [] };
    for (let i = 0; i < rounds; i++) {
      await page.goto("/");
      const link = page.locator(`a[href="/books/${bookId}/write"]`).first();
      await link.waitFor();
      times.own.push(
        await page.evaluate((book) => {
          const began = performance.now();
          document.querySelector(`a[href="/books/${book}/write"]`).click();
          return new Promise((resolve) => {
            const look = () =>
              document.querySelector("[data-link-area]")
                ? requestAnimationFrame(() => resolve(performance.now() - began))
                : requestAnimationFrame(look);
            look();
          });
        }, bookId),
      );
      await bare.goto(`${origin}/bare`);
      times.bare.push(
        await bare.evaluate(
          async ([url, library]) => {
            const pdfJs = await import(library);
            pdfJs.GlobalWorkerOptions.workerSrc = "/bare-worker.mjs";
            const began = performance.now();
            const file = await pdfJs.getDocument({ url }).promise;
            const sheet = await file.getPage(1);
            const viewport = sheet.getViewport({ scale: 1 });
            const canvas = document.querySelector("canvas");
            [canvas.width, canvas.height] = [viewport.width, viewport.height];
            await sheet.render({ canvas, viewport }).promise;
            await sheet.getAnnotations();
            await new Promise(requestAnimationFrame);
            const took = performance.now() - began;
            await file.loadingTask.destroy();
            return took;
          },
          [`${origin}/api/books/${bookId}/finished/file`, "/bare.mjs"],
        ),
      );
    }
    const [own, alone] = [new Spread(times.own), new Spread(times.bare)];
    console.log(
      `A PDF of ${pages} pages with ${links} links, from the press to its first page with links: ${own}; bare pdf.js ${alone}: ratio ${own.over(alone)} (aim: at most 1.5)`,
    );
  }
});
