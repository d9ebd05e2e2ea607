import { expect, test } from "@jest/globals";
import { bring, linksIn } from "../../test/brought.ts";
import { redDot } from "../../test/red-dot.ts";

const namespaces = [
  ["office", "office"],
  ["text", "text"],
  ["style", "style"],
  ["draw", "drawing"],
  ["svg", "svg-compatible"],
]
  .map(([prefix, name]) => `xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`)
  .join(" ");

// OpenDocument 1.3, part 3, 3.1.2: all parts of a document in one text.
test("a document that is one text comes in as one that is packed, with its links and pictures, without heads of pages", async () => {
  const picture = `<draw:frame svg:width="1cm" svg:height="1cm"><draw:image><office:binary-data>${Buffer.from(redDot).toString("base64")}</office:binary-data></draw:image><svg:title>Post</svg:title></draw:frame>`;
  const text = `<?xml version="1.0" encoding="UTF-8"?>\n<office:document ${namespaces} xmlns:xlink="http://www.w3.org/1999/xlink" office:version="1.3" office:mimetype="application/vnd.oasis.opendocument.text"><office:meta/><office:styles><style:style style:name="Bold"/></office:styles><office:master-styles><style:header><text:p>Head of <text:a xlink:href="https://head.example/">pages</text:a></text:p></style:header></office:master-styles><office:body><office:text><text:h text:outline-level="1">Low water</text:h><text:p><text:meta xml:id="m">See <text:a xlink:href="https://tides.example/">the tables</text:a></text:meta> ${picture}</text:p></office:text></office:body></office:document>`;
  const bytes = new TextEncoder().encode(text);
  const { chapters, pictures, arrival } = await bring(bytes);
  expect(chapters[0]!.firstChild!.textContent).toBe("Low water");
  expect(pictures.map(({ bytes: found }) => found)).toEqual([redDot]);
  expect(await linksIn(bytes)).toEqual([["the tables", "https://tides.example/"]]);
  expect(arrival!.counts).toMatchObject({ intact: 1, lost: 0, extra: 0 });
});
