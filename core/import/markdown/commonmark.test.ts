import { expect, test } from "@jest/globals";
import spec from "commonmark-spec";
import { bring } from "../../test/brought.ts";
import { linksOfHtml } from "../arrival/links-of-html.ts";
import { linksOfMarkdown } from "./second-reading.ts";

// CommonMark 0.31, its own examples: what each text in Markdown stands for, as HTML.
const withLinks = spec.tests.filter(({ html }) => /<a |<img /.test(html));
/** GFM makes links of addresses that stand bare, and takes `[^` for the sign of a note: these examples are CommonMark's alone. */
const otherInGfm = (markdown: string): boolean => /\[\^|(^|[^<("\]:=])https?:\/\/|\bwww\./.test(markdown);

test("every link of CommonMark’s examples is found by the second reader, with its words and title", () => {
  expect(withLinks.length).toBe(146);
  const wrong = withLinks.flatMap(({ number, markdown, html }) => {
    if (otherInGfm(markdown)) return [];
    const told = (links: ReturnType<typeof linksOfHtml>): string =>
      JSON.stringify(links.map(({ words, href, title }) => [words, href, title]));
    const [found, expected] = [told(linksOfMarkdown(markdown)), told(linksOfHtml(html))];
    return found === expected ? [] : [{ number, found, expected }];
  });
  expect(wrong).toEqual([]);
});

test("and arrives in the book, or is told with its reason", async () => {
  const wrong: unknown[] = [];
  let intact = 0;
  for (const { number, markdown } of withLinks) {
    const { arrival } = await bring(new TextEncoder().encode(markdown));
    intact += arrival!.counts.intact;
    for (const { verdict, words, href, sort, reason } of arrival!.links)
      if (
        verdict === "lost" ||
        verdict === "extra" ||
        (verdict === "changed" && !/not brought along|does not have/.test(sort))
      )
        wrong.push([number, verdict, words, href, sort, reason]);
  }
  expect(wrong).toEqual([]);
  expect(intact).toBeGreaterThan(10);
});
