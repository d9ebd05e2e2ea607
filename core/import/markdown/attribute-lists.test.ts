import { expect, test } from "@jest/globals";
import { linkUses } from "../../manuscript/links.ts";
import { bring } from "../../test/brought.ts";

async function read(markdown: string): Promise<[text: string, newWindow: boolean[], verdicts: string[]]> {
  const { chapters, arrival } = await bring(new TextEncoder().encode(markdown));
  const [doc] = chapters;
  const text = doc!.children.slice(1).map(({ textContent }) => textContent);
  return [
    text.join("|"),
    linkUses(doc!).map(({ newWindow }) => newWindow),
    arrival!.links.map(({ verdict }) => verdict),
  ];
}

const address = "https://tides.example/";

test.each<[string, string, boolean]>([
  [`The [hours](${address}){:target="_blank"}.`, "The hours.", true],
  [`The [hours](${address}){:target="_blank" rel="noopener"}.`, "The hours.", true],
  [`The [hours](${address}){ .plain #hours target=_blank } of it.`, "The hours of it.", true],
  [`The [hours](${address} "By day"){.plain}.`, "The hours.", false],
  [`The [hours][h]{.plain}.\n\n[h]: ${address}`, "The hours.", false],
  [`The [hours](${address}) {.plain}.`, "The hours {.plain}.", false],
  [`The [hours](${address}){see below}.`, "The hours{see below}.", false],
  [`The [hours](${address}){}.`, "The hours{}.", false],
  [`The *hours*{.plain} [here](${address}).`, "The hours{.plain} here.", false],
])("attributes behind links are no words: %s", async (markdown, text, opensWindow) => {
  expect(await read(markdown)).toEqual([text, [opensWindow], ["intact"]]);
});

test("in exports of ours braces behind a link are an author's words", async () => {
  const counts = [
    "headings: 0",
    "figures: book",
    "tables: book",
    "notes: chapter",
    "notesAt: page",
    "returnWords: ↩",
  ];
  const [text] = await read(
    `---\ntitle: Tides\ncounts:\n${counts.map((one) => `  ${one}\n`).join("")}---\n\nThe [hours](${address}){.plain}.`,
  );
  expect(text).toBe("The hours{.plain}.");
});
