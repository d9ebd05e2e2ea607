import { describe, expect, test } from "@jest/globals";
import { parse } from "parse5";
import { keptPage, resourcesOf, type Resource } from "./kept-page.ts";

const address = "https://tides.example/tables/spring";
const about = { address, keptAt: new Date("2026-11-27T10:00:00Z") };
const picture: Resource = { type: "image/png", bytes: Uint8Array.from([1, 2, 3]) };
const sheet = (css: string): Resource => ({ type: "text/css", bytes: new TextEncoder().encode(css) });
const kept = (html: string, resources: [string, Resource][] = []) =>
  keptPage(html, about, new Map(resources));

test("its style sheets and pictures are asked for where the page says that they lie", () => {
  const page =
    '<base href="/base/"><link rel="stylesheet" href="a.css"><img src="b.png"><img src="b.png"><img src="//cdn.example/c.png"><link rel="icon" href="d.ico"><img src="data:image/png;base64,AA"><img src="ftp://x.example/e.png">';
  expect(resourcesOf(page, address)).toEqual([
    "https://tides.example/base/a.css",
    "https://tides.example/base/b.png",
    "https://cdn.example/c.png",
  ]);
});

test("it says where and when it was taken, and keeps words, parts and links as they led", () => {
  const page = kept(
    '<html lang="de"><title>Tafeln</title><h1 id="low">Niedrig</h1><p>Um <b>neun</b>. <a href="../b?c#d">Weiter</a> <a href="#low">hinauf</a> <a href="mailto:orla@tides.example">Orla</a>',
  );
  expect(page).toContain('<html lang="de">');
  expect(page).toContain("<title>Tafeln</title>");
  expect(page).toContain('<h1 id="low">Niedrig</h1><p>Um <b>neun</b>.');
  for (const href of ["https://tides.example/b?c#d", "#low", "mailto:orla@tides.example"])
    expect(page).toContain(`href="${href}"`);
  expect(page).toMatch(
    /Kept copy of <a href="https:\/\/tides\.example\/tables\/spring">[^<]*<\/a>, 2026-11-27/,
  );
});

test("pictures and style sheets are inside, and what was not had is left out with its words kept", () => {
  const page = kept(
    '<link rel="stylesheet" media="print" href="a.css"><img src="b.png" alt="A map"><img src="gone.png" alt="A tide"><style>p{background:url(x.png)}</style>',
    [
      [
        "https://tides.example/tables/a.css",
        sheet("@import 'z.css'; p { color: red; background: url(y.png) }"),
      ],
      ["https://tides.example/tables/b.png", picture],
    ],
  );
  expect(page).toContain('<style media="print"> p { color: red; background: none }</style>');
  expect(page).toContain('alt="A map" src="data:image/png;base64,AQID"');
  expect(page).toContain('<img alt="A tide">');
  expect(page).toContain("<style>p{background:none}</style>");
});

describe("nothing in it does anything, or asks for anything", () => {
  test.each([
    "<script>alert(1)</script><p>x",
    '<p onclick="alert(1)" style="background:url(https://evil.example/a)">x',
    '<a href="javascript:alert(1)">x</a>',
    '<a href=" java&#10;script:alert(1)">x</a>',
    '<iframe src="https://evil.example/"></iframe>x',
    '<svg><script>alert(1)</script><use href="https://evil.example/a#b"></use><image href="https://evil.example/b.png"/></svg>x',
    '<form action="https://evil.example/"><button formaction="https://evil.example/">x</button></form>',
    '<meta http-equiv="refresh" content="0;url=https://evil.example/">x',
    '<img srcset="https://evil.example/a 2x" src="https://evil.example/b">x',
    '<object data="https://evil.example/"></object><embed src="https://evil.example/">x',
    '<video src="https://evil.example/a" poster="https://evil.example/b"></video>x',
    "<template><script>alert(1)</script></template>x",
    '<style></style><style>a{}</style><style>@import "https://evil.example/a";</style>x',
    '<link rel="preload" href="https://evil.example/a">x',
    '<noscript><img src="https://evil.example/a"></noscript>x',
    '<math><a xlink:href="javascript:alert(1)">x</a></math>',
  ])("%s", (html) => {
    const page = kept(html);
    expect(page).not.toMatch(/evil\.example|alert|<script|<iframe|<form|java/i);
    expect(page).toContain("x");
    expect(page).toContain("default-src 'none'");
    // It is read as it was written.
    expect(parse(page).childNodes.length).toBeGreaterThan(0);
  });

  test("a style sheet cannot end its element", () => {
    const page = kept('<link rel="stylesheet" href="a.css">x', [
      ["https://tides.example/tables/a.css", sheet("</style><script>alert(1)</script>")],
    ]);
    expect(page).not.toMatch(/<script/i);
  });
});
