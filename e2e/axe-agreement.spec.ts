import AxeBuilder from "@axe-core/playwright";
import { bookOfCase, judge, type Case } from "@vennet/core/checks/cases/case";
import { allCases } from "@vennet/core/checks/cases/cases";
import { writeWebPage } from "@vennet/core/publish/formats/web/web-page";
import { defaultLooks } from "@vennet/core/manuscript/looks";
import { mkdtempSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import { expect, openOwnBook, test } from "./fixtures";

// What the rules of Vennet and those of axe-core, which others wrote, say of the same exported page.

const web = (address: string) => ({ kind: "web", address });
const mark = (id: string, address = "https://tides.hesterley.example/") => ({
  type: "link",
  attrs: { id, destination: web(address), description: null },
});
const words = (text: string, id?: string) => ({ type: "text", text, ...(id ? { marks: [mark(id)] } : {}) });
const picture = (id: string, alt: string, file: string) => ({
  type: "picture",
  attrs: { file, alt, decorative: false, source: null, width: null, hotspots: [] },
  marks: [mark(id)],
});
const paragraph = (...content: unknown[]) => ({ type: "paragraph", content });
const onePixel = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==",
  "base64",
);

// ACT rule c487ae, "link has non-empty accessible name": its passed and failed examples (from memory) as far as
// a manuscript can hold them.
const named = (file: string) => [
  paragraph(words("Web Accessibility Initiative", "p1")),
  paragraph(picture("p2", "Web Accessibility Initiative", file)),
  paragraph(picture("p3", "Guide", file), words(" of the coast", "p3")),
  paragraph(words("See "), words("the tide office", "p4"), words(" first, and go then.")),
];
const nameless = (file: string) => [
  paragraph(words("x "), words("\u00a0", "f1")),
  paragraph(picture("f2", "", file)),
];

test("axe-core and the rules agree on which links have no name, and on contrast, wherever both judge", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, "# Names\n\nWords.");
  const { request } = page;
  const stored = await request.post(`/api/books/${bookId}/pictures`, {
    multipart: { picture: { name: "dot.png", mimeType: "image/png", buffer: onePixel } },
  });
  const { id: file } = (await stored.json()) as { id: string };
  const [first] = (await (await request.get(`/api/books/${bookId}/chapters`)).json()) as { id: string }[];
  const document = {
    type: "doc",
    content: [
      { type: "title", attrs: { id: "t" }, content: [{ type: "text", text: "Names" }] },
      ...named(file),
      ...nameless(file),
    ],
  };
  expect(
    (await request.post(`/api/books/${bookId}/chapters`, { data: { title: "Names", document } })).status(),
  ).toBe(201);
  await request.delete(`/api/books/${bookId}/chapters/${first!.id}`);

  const findings = async (rule: string): Promise<string[]> =>
    (
      (await (await request.get(`/api/books/${bookId}/findings`)).json()) as {
        rule: string;
        subject: string;
      }[]
    )
      .filter((finding) => finding.rule === rule)
      .map(({ subject }) => subject);
  /** What axe-core says of the exported page, by the addresses of the links that it names. */
  const axeOn = async (rules: string[]): Promise<{ rule: string; count: number }[]> => {
    const job = (await (
      await request.post(`/api/books/${bookId}/exports`, { data: { format: "web" } })
    ).json()) as { id: string };
    await request.get(`/api/jobs/${job.id}/events`);
    const [newest] = (await (await request.get(`/api/books/${bookId}/exports`)).json()) as { id: string }[];
    const bytes = await (await request.get(`/api/books/${bookId}/exports/${newest!.id}/file`)).body();
    const at = join(mkdtempSync(join(tmpdir(), "vennet-axe-")), "book.html");
    writeFileSync(at, bytes);
    await page.goto(pathToFileURL(at).href);
    const { violations } = await new AxeBuilder({ page }).withRules(rules).analyze();
    return violations.map(({ id, nodes }) => ({ rule: id, count: nodes.length }));
  };

  expect(await findings("no-name")).toEqual(["f1", "f2"]);
  expect(await axeOn(["link-name"])).toEqual([{ rule: "link-name", count: 2 }]);

  // Looks: the ratio with the paper, and without an underline the ratio with the text.
  const look = async (change: Partial<(typeof defaultLooks)["web"]>): Promise<void> => {
    const looks = { ...defaultLooks, web: { ...defaultLooks.web, ...change } };
    expect((await request.patch(`/api/books/${bookId}`, { data: { looks } })).status()).toBe(200);
  };
  const both = async () => ({
    unreadable: (await findings("look-unreadable")).length > 0,
    untold: (await findings("look-untold")).length > 0,
    axe: (await axeOn(["color-contrast", "link-in-text-block"])).map(({ rule }) => rule).sort(),
  });
  await look({});
  expect(await both()).toEqual({ unreadable: false, untold: false, axe: [] });
  await look({ colour: "#999999" });
  expect(await both()).toEqual({ unreadable: true, untold: false, axe: ["color-contrast"] });
  await look({ colour: "#3a3a3a", underline: "none" });
  expect(await both()).toEqual({ unreadable: false, untold: true, axe: ["link-in-text-block"] });
  await look({ colour: "#2f7f2f", underline: "none" });
  expect(await both()).toEqual({ unreadable: false, untold: false, axe: [] });
  // Where they differ: axe-core judges the colours that a page shows at rest and takes any underline for a mark;
  // the rules judge every kind of link that the book has a look for, whether it has such a link or not.
});

// A picture without a text alternative goes out as one that says nothing, so that axe-core has no word about it; a link whose
// file or place is gone does not go out at all.
const judgedByBoth: [rule: string, axe: string[]][] = [
  ["no-name", ["link-name", "area-alt"]],
  ["own-look", ["color-contrast", "link-in-text-block"]],
];

for (const [rule, axe] of judgedByBoth)
  test(`axe-core says of every labelled case of ${rule} what is said of it here`, async ({ page }) => {
    const { wrong, right } = allCases.find((one) => one.rule === rule)!;
    const folder = mkdtempSync(join(tmpdir(), "vennet-axe-"));
    const told: unknown[] = [];
    for (const given of [...wrong, ...right]) {
      const one = Array.isArray(given) ? (given[0] as string | Case) : (given as string | Case);
      if (/\]\((?:companion:|#)/.test(typeof one === "string" ? one : one.text)) continue;
      const isFound = judge(rule, one).findings.length > 0;
      const pictures = ["p", "q", "f"].map((id) => ({
        id,
        mediaType: "image/png" as const,
        bytes: onePixel,
      }));
      const at = join(folder, "case.html");
      writeFileSync(at, writeWebPage({ ...bookOfCase(one), pictures }));
      await page.goto(pathToFileURL(at).href);
      const { violations } = await new AxeBuilder({ page }).include("main").withRules(axe).analyze();
      if (violations.length > 0 !== isFound) told.push([one, isFound, violations.map(({ id }) => id)]);
    }
    expect(told).toEqual([]);
  });
