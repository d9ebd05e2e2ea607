import { expect, test } from "@jest/globals";
import { bring } from "../../test/brought.ts";

const read = async (markdown: string): Promise<unknown[]> => {
  const { chapters, arrival } = await bring(new TextEncoder().encode(markdown));
  return [
    chapters.map((doc) => doc.children.map(({ textContent }) => textContent)),
    arrival!.links.map(({ verdict }) => verdict),
  ];
};

const text = "# Tides\n\nSee [the tides](#tides).\n";

test.each(["[toc]", "[TOC]", "[[toc]]", "[[_TOC_]]", "${toc}", "* TOC\n{:toc}", "- contents\n{:toc .plain}"])(
  "%j is no word, and no chapter before the first heading",
  async (mark) => {
    const brought = [[["Tides", "See the tides."]], ["intact"]];
    expect(await read(`${mark}\n\n${text}`)).toEqual(brought);
    expect(await read(text.replace("\n\n", `\n\n${mark}\n\n`))).toEqual(brought);
  },
);

test("words about it are words", async () => {
  const fenced = "```\n[toc]\n```";
  expect(await read(`${text}\nWrite [toc] there.\n\n- {:toc} is a sign\n\n${fenced}\n`)).toEqual([
    [["Tides", "See the tides.", "Write [toc] there.", "{:toc} is a sign", "[toc]"]],
    ["intact"],
  ]);
});
