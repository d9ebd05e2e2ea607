import { expect, test } from "@jest/globals";
import { importManuscript } from "../import-manuscript.ts";
import { textOfPage } from "./page-text.ts";

const file = (name: string, page: string) => ({ name, bytes: new TextEncoder().encode(page) });

test("a page of XHTML is read as XML means it: empty elements end, marked text is text, its declaration tells its letters", async () => {
  const page = `<?xml version="1.0" encoding="iso-8859-1"?>
<!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.1//EN" "http://www.w3.org/TR/xhtml11/DTD/xhtml11.dtd" [
<!ENTITY tides "https://tides.example/">
]>
<html xmlns="http://www.w3.org/1999/xhtml"><head><title>Tides</title><script src="tides.js" /></head>
<body><h1>Ebbe für Fußgänger</h1><p><a id="spot"/>Low, see <a href='https://tides.example/?a=">"'>hours</a><br/><span
 title="a > b"/> or <a href="#spot">here</a>.</p><!-- <p/> --><pre><![CDATA[a < b && c]]></pre></body></html>`;
  const { chapters, arrival } = await importManuscript(
    { name: "tides.xhtml", bytes: Buffer.from(page, "latin1") },
    { fallbackTitle: "T", baseAddress: null, pictureFor: () => null },
  );
  expect(chapters[0]!.textContent).toBe("Ebbe für FußgängerLow, see hoursor here.a < b && c");
  expect(arrival!.counts).toMatchObject({ intact: 2, changed: 0, lost: 0, extra: 0 });
});

test("lines stay where they are, and a page of HTML stays as it is", () => {
  const page = '<p>a\n<b\n class="x"\n/><![CDATA[\n]]></p>\n';
  expect(textOfPage(file("a.xhtml", page))).toBe('<p>a\n<b\n class="x"\n></b>\n</p>\n');
  expect(textOfPage(file("a.html", page))).toBe(page);
});

test("a long page with signs that look like the start of a tag is read in no time that grows with its square", () => {
  const page = "<a b='\"".repeat(200_000);
  expect(textOfPage(file("a.xhtml", page))).toBe(page);
});
