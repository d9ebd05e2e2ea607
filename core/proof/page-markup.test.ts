import { expect, test } from "@jest/globals";
import { judgeAttribute, judgeElement } from "./page-markup.ts";

test.each(["a", "p", "table", "math", "mrow", "svg", "polygon"])("“%s” shows what is in it", (tag) => {
  expect(judgeElement(tag)).toBeNull();
});

test.each([
  "details",
  "template",
  "noscript",
  "textarea",
  "video",
  "marquee",
  "rp",
  "mphantom",
  "maction",
  "foreignObject",
])("“%s” may hide what is in it, or take presses", (tag) => {
  expect(judgeElement(tag)).toContain(tag);
});

test.each([
  ["a", "href", "#a"],
  ["p", "class", "verse"],
  ["section", "aria-labelledby", "notes"],
  ["td", "colspan", "2"],
  ["li", "data-done", ""],
  ["html", "xmlns:epub", "http://www.idpf.org/2007/ops"],
  ["polygon", "fill-opacity", "0"],
  ["math", "display", "block"],
  ["link", "rel", "stylesheet"],
])("<%s %s> leaves links as they are", (tag, name, value) => {
  expect(judgeAttribute(tag, name, value)).toBeNull();
});

test.each([
  ["a", "download", "a.txt"],
  ["a", "ping", "https://elsewhere.example/"],
  ["a", "aria-labelledby", "elsewhere"],
  ["p", "contenteditable", "true"],
  ["span", "xml:base", "https://elsewhere.example/"],
  ["rect", "transform", "scale(0)"],
  ["mi", "href", "https://elsewhere.example/"],
  ["p", "href", "https://elsewhere.example/"],
  ["link", "rel", "preload"],
])("<%s %s> may not", (tag, name, value) => {
  expect(judgeAttribute(tag, name, value)).not.toBeNull();
});
