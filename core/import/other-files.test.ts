import { expect, test } from "@jest/globals";
import { adviceFor } from "./other-files.ts";

const advice = (text: string, name = "walks"): string | null =>
  adviceFor({ name, bytes: new TextEncoder().encode(text) });

test.each<[string, string]>([
  [
    "a book in DocBook",
    '<?xml version="1.0"?><article xmlns="http://docbook.org/ns/docbook"><para>x</para></article>',
  ],
  [
    "one of an older version",
    '<!DOCTYPE article PUBLIC "-//OASIS//DTD DocBook XML V4.5//EN" "x.dtd"><article><para>x</para></article>',
  ],
  ["a drawing", '<svg xmlns="http://www.w3.org/2000/svg"><a href="https://a.example/"/></svg>'],
  [
    "a part of a text document",
    '<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"/>',
  ],
  ["a feed", '<?xml version="1.0"?><!-- x --><rss version="2.0"><channel/></rss>'],
])("%s is refused, not read as a page", (_, text) => {
  expect(advice(text)).toMatch(/is XML of another kind.*Turn it into a web page or a text document/);
});

test.each<[string, string]>([
  [
    "a page of XHTML",
    '<?xml version="1.0"?><!DOCTYPE html [<!ENTITY a "b">]><html xmlns="http://www.w3.org/1999/xhtml"/>',
  ],
  [
    "a page of a text program",
    '<html xmlns:o="urn:office" xmlns="http://www.w3.org/TR/REC-html40"><body/></html>',
  ],
  ["a page of an old version", '<!DOCTYPE HTML PUBLIC "-//W3C//DTD HTML 4.0//EN"><HTML></HTML>'],
  ["Markdown that begins with an address", "<mailto:clerk@causeways.example>"],
  ["Markdown that begins with an element", '<a name="top"></a>\n# Tides'],
  [
    "a document of OpenDocument that is one text",
    '<office:document xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0"/>',
  ],
])("%s is not", (_, text) => {
  expect(advice(text)).toBeNull();
});

test("a page that is packed as a message is refused with what to do", () => {
  const message = "MIME-Version: 1.0\r\nContent-Type: multipart/related; boundary=x\r\n\r\n--x\r\n";
  expect(advice(message, "tides.mht")).toMatch(/packed as a message.*as a ZIP/);
});

const examples: readonly [markup: string, example: string][] = [
  ["reStructuredText", ".. note:: Mind the tide."],
  ["LaTeX", "\\documentclass{book}"],
  ["AsciiDoc", ":toc: left"],
  ["Org", "#+TITLE: Walks"],
];

test.each(examples)("text in %s is refused, and what only shows some of it is not", (markup, example) => {
  expect(advice(`${example}\n\nWalk at low water.`)).toMatch(`is text in ${markup}`);
  expect(advice(example, "walks.tex.rst.adoc.org.bak")).toMatch(`is text in ${markup}`);
  const page = `<pre>\n${example}\n</pre>`;
  expect(advice(page)).toBeNull();
  expect(advice(`\ufeff\n<!doctype html>${page}`)).toBeNull();
  expect(advice(`How to write it: ${page}`, "walks.HTML")).toBeNull();
  for (const name of ["walks.md", "walks.txt", "walks.markdown"])
    expect(advice(`    ${example}\n\n${example}`, name)).toBeNull();
  // A book whose first page lies unpacked in its archive.
  expect(advice(`PK\x03\x04text/one.xhtml<html>${page}</html>`, "walks")).toBeNull();
});
