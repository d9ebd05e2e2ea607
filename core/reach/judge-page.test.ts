import { describe, expect, test } from "@jest/globals";
import { impossibleName, judgePage } from "./judge-page.ts";
import { outcome, type Hop, type Outcome } from "./outcome.ts";
import { PageReader, type PageFacts } from "./page-reader.ts";
import { wantedPart } from "./part.ts";

const at = "https://tides.example/tables/spring";

function read(html: string, wanted: string[] = [], piece = html.length || 1): PageFacts {
  const reader = new PageReader({ parts: wanted.map((name) => [name]), isTextWanted: true });
  for (let i = 0; i < html.length; i += piece) reader.push(html.slice(i, i + piece));
  reader.end();
  return reader.facts();
}

function arrived(address = at, more: Partial<Hop> = {}): Outcome {
  const hop: Hop = {
    method: "GET",
    address: address.replace(/#.*/, ""),
    status: 200,
    location: null,
    type: "text/html",
    failure: null,
    ms: 1,
    ...more,
  };
  return outcome("sound", "ok", [hop]);
}

const judged = (html: string, address = at, last: Partial<Hop> = {}, missing: string | null = null) => {
  const part = wantedPart(address);
  const page = read(html, part.kind === "element" ? [...part.names] : []);
  const { state, code } = judgePage(
    address,
    arrived(address, last),
    page,
    missing === null ? null : read(missing),
  );
  return `${state} ${code}`;
};

describe("reading a page", () => {
  test("gives title, heading, words and parts, in whatever pieces it comes", () => {
    const html =
      '<!doctype html><title>The &amp;\n Tide</title><script>var x = "<h1>no</h1>"</script><h1 id=a>Low <b>water</b></h1><svg><title>Not this</title></svg><p>At <a name="b c">nine</a>.';
    for (const piece of [1, 7, 1000])
      expect(read(html, ["a", "b c", "d"], piece)).toEqual({
        title: "The & Tide",
        heading: "Low water",
        parts: new Map([
          ["a", "Low water Not this At nine ."],
          ["b c", "nine ."],
        ]),
        headings: ["Low water"],
        content: "Low water\nNot this\nAt nine.\n",
        language: null,
        text: expect.stringMatching(/Low\s+water\s+Not this\s+At\s+nine\./),
        hasPasswordField: false,
        hasScripts: true,
        leadsOn: null,
        words: expect.stringMatching(/^Low water Not this At nine \.$/),
        isWhole: true,
      });
  });

  test("tells where it leads by itself", () => {
    const leadsOn = (html: string) => read(html).leadsOn;
    const meta = '<meta http-equiv="Refresh" content="0; url=now">';
    expect(leadsOn(`<title>T</title>${meta}`)).toEqual({ to: "now", base: null });
    expect(leadsOn(`<base href="/tables/">${meta}<meta http-equiv=refresh content="0; url=other">`)).toEqual({
      to: "now",
      base: "/tables/",
    });
    for (const inert of ["noscript", "template"]) expect(leadsOn(`<${inert}>${meta}</${inert}>`)).toBeNull();
    expect(leadsOn('<meta http-equiv="refresh" content="300">')).toBeNull();
    expect(leadsOn('<meta name="refresh" content="0; url=now">')).toBeNull();
  });

  test("ends as soon as all that is asked for is known", () => {
    const reader = new PageReader({ parts: [["later", "late"]], isTextWanted: false });
    reader.push(
      `<title>T</title><h1>H</h1><main>${"<p>So much is kept of what a page says.</p>".repeat(2_000)}`,
    );
    expect(reader.hasEnough).toBe(false);
    reader.push(`<p id="late">${"And of what is looked for. ".repeat(20)}`);
    expect(reader.hasEnough).toBe(true);
    expect(reader.facts().isWhole).toBe(false);
  });
});

// WHATWG HTML, "the indicated part of the document" (from memory).
describe("the part that a fragment names", () => {
  test.each([
    ["", { kind: "top" }],
    ["#", { kind: "top" }],
    ["#TOP", { kind: "top" }],
    ["#neap", { kind: "element", names: ["neap", "user-content-neap"] }],
    [
      "#h%C3%B6chste",
      {
        kind: "element",
        names: ["h%C3%B6chste", "höchste", "user-content-h%C3%B6chste", "user-content-höchste"],
      },
    ],
    ["#100%", { kind: "element", names: ["100%", "user-content-100%"] }],
    ["#neap:~:text=tide", { kind: "element", names: ["neap", "user-content-neap"] }],
    ["#L10-L20", { kind: "element", names: ["L10-L20", "user-content-L10-L20"], isForScripts: true }],
    ["#t=90", { kind: "element", names: ["t=90", "user-content-t=90"], isForScripts: true }],
    ["#:~:text=tide", { kind: "top" }],
    ["#/route", { kind: "script" }],
    ["#!route", { kind: "script" }],
  ])("%j", (fragment, part) => expect(wantedPart(at + fragment)).toEqual(part));

  test.each([
    ['<p id="neap">', "#neap", "sound ok"],
    ['<a name="neap">', "#neap", "sound ok"],
    ['<p name="neap">', "#neap", "broken no-part"],
    ['<p id="Neap">', "#neap", "broken no-part"],
    ['<p id="höchste">', "#h%C3%B6chste", "sound ok"],
    ["<p>", "#top", "sound ok"],
    ["<p>", "#/route", "unsure part-unread"],
    ['<h2><a id="user-content-neap" href="#neap"></a>', "#neap", "sound ok"],
    ['<p id="L10">', "#L10", "sound ok"],
    [`<p>${"The tide goes out at nine. ".repeat(20)}</p><script></script>`, "#L10", "unsure part-unread"],
    [`<p>${"The tide goes out at nine. ".repeat(20)}</p><script></script>`, "#gid=3", "unsure part-unread"],
    ["<p>", "#L10", "broken no-part"],
    // What few words and scripts there are may make the part.
    ['<div id="root"></div><script src="app.js"></script>', "#neap", "unsure part-unread"],
    [`<p>${"The tide goes out at nine. ".repeat(20)}</p><script></script>`, "#neap", "broken no-part"],
  ])("%s with %s is %s", (html, fragment, expected) => expect(judged(html, at + fragment)).toBe(expected));

  test("of a page that was not read to its end is not known", () => {
    const page = { ...read("<p>"), isWhole: false };
    expect(judgePage(`${at}#late`, arrived(), page, null)).toMatchObject({
      state: "unsure",
      code: "part-unread",
    });
  });

  test("of a page to which another leads by itself is not known to be reached", () => {
    const first: Hop = { ...arrived().hops[0]!, leadsOn: `${at}/now` };
    const led = { ...arrived(), hops: [first, { ...arrived().hops[0]!, address: `${at}/now` }] };
    const verdict = (html: string, wanted: string): string => {
      const { state, code } = judgePage(at + wanted, led, read(html, ["neap"]), null);
      return `${state} ${code}`;
    };
    expect(verdict('<p id="neap">At nine', "#neap")).toBe("unsure part-unread");
    expect(verdict("<p>At nine", "#neap")).toBe("broken no-part");
    expect(verdict("<p>At nine", "")).toBe("sound ok");
    expect(verdict("<p>At nine", "#:~:text=nine")).toBe("unsure part-unread");
  });

  test("of a file that is no page is its reader's matter", () => {
    const file = arrived(at, { type: "application/pdf" });
    expect(judgePage(`${at}#page=3`, file, null, null)).toEqual({ ...file, title: null });
  });
});

// Common practice: how sites say such things is not published anywhere.
describe("a good answer that is none", () => {
  test.each([
    "Page not found",
    "404",
    "Error 404",
    "404 Not Found",
    "Hesterley | Page not found",
    "Not found – The Tide Office",
    "The page you are looking for does not exist",
    "This article is no longer available",
    "Seite nicht gefunden",
    "Die Seite wurde nicht gefunden",
    "Page introuvable",
    "Página no encontrada",
    "Pagina niet gevonden",
    "Siden blev ikke fundet",
  ])("%j says that nothing was found, as title and as heading", (words) => {
    expect(judged(`<title>${words}</title>`)).toBe("broken says-missing");
    expect(judged(`<title>Tide Office</title><h1>${words}</h1>`)).toBe("broken says-missing");
  });

  test.each([
    "Lost and found office",
    "How a lost causeway was found",
    "Room 404 of the old inn",
    "What the founders did not foresee",
    `How the page that was not found in any of the archives of the port came to be printed again after ninety years`,
  ])("%j does not", (words) => expect(judged(`<title>${words}</title><h1>${words}</h1>`)).toBe("sound ok"));

  test("that equals the answer for a name that cannot exist is unsure, whatever name it repeats", () => {
    const shell = (name: string): string => `<title>Portal</title><p>Loading ${name} 12:30</p>`;
    expect(judged(shell("spring"), at, {}, shell(impossibleName))).toBe("unsure same-as-missing");
    expect(judged("<title>Portal</title><p>Spring tides</p>", at, {}, shell(impossibleName))).toBe(
      "sound ok",
    );
    expect(judged(shell(""), "https://tides.example/", {}, shell(impossibleName))).toBe("sound ok");
  });

  test("that asks to sign in is guarded, unless the link leads to the sign-in page itself", () => {
    const form = '<title>Sign in</title><input type="password">';
    expect(judged(form)).toBe("guarded sign-in");
    expect(judged("<title>Members</title>", at, { address: "https://tides.example/login?next=1" })).toBe(
      "sound ok",
    );
    expect(judged('<input type="password">', at, { address: "https://tides.example/login" })).toBe(
      "guarded sign-in",
    );
    expect(judged(form, "https://tides.example/login")).toBe("sound ok");
    // A sign-in form in a corner of a page that shows what it should.
    expect(judged('<title>Spring tides</title><input type="password">')).toBe("sound ok");
    expect(
      judgePage(at, arrived(at, { address: "https://tides.example/sso", type: "text/plain" }), null, null)
        .code,
    ).toBe("sign-in");
  });

  test("that offers the name for sale is broken", () => {
    expect(judged("<p>This domain is for sale!</p>")).toBe("broken parked");
    expect(judged("<p>Diese Domain steht zum Verkauf.</p>")).toBe("broken parked");
    expect(judged("<p>The harbour is for sale.</p>")).toBe("sound ok");
  });

  test("that comes from the front page instead is unsure and gives no new address", () => {
    const moved = {
      ...arrived(at, { address: "https://tides.example/" }),
      state: "moved",
      movedTo: "https://tides.example/",
    };
    const { state, code, movedTo } = judgePage(at, moved as Outcome, read("<title>Welcome</title>"), null);
    expect([state, code, movedTo]).toEqual(["unsure", "front-page", null]);
  });

  test("that is a page where a file was promised is unsure", () => {
    expect(judged("<title>Library</title>", "https://tides.example/plan.pdf")).toBe("unsure other-type");
  });
});

describe("words that an address points at", () => {
  const page = `<title>T</title><h1>H</h1><p>${"The sand lies bare for four hours. ".repeat(9)}</p><p>Café at the fifth post.`;
  // The examples of the URL Fragment Text Directives draft, section 3, with words of ours (from memory).
  test.each([
    ["text=fifth%20post", "sound ok"],
    ["text=FIFTH%20POST", "sound ok"],
    ["text=cafe", "sound ok"],
    ["text=sand,hours", "sound ok"],
    ["text=at%20the-,fifth,-post", "sound ok"],
    ["text=gone&text=fifth%20post", "sound ok"],
    ["text=sixth%20post", "broken no-text"],
    ["text=fif", "broken no-text"],
    ["text=hours,sixth", "broken no-text"],
    ["text=by%20the-,fifth", "broken no-text"],
    ["text=fifth,-hut", "broken no-text"],
  ])("%s: %s", (directive, verdict) => expect(judged(page, `${at}#:~:${directive}`)).toBe(verdict));

  test.each([
    ["<h1>Möwen</h1>The sand lies bare.", "M%C3%B6wen", "sound ok"],
    ["<ul><li>ebb</li>flow</ul>", "ebb", "sound ok"],
    ["<p>ebb<br>flow", "flow", "sound ok"],
    ["<p><b>E</b>bbing <i>sand</i>s", "ebbing%20sands", "sound ok"],
    ["<p>sand<wbr>bank of H<sub>2</sub>O", "sandbank%20of%20h2o", "sound ok"],
    ["<p>ebb</p>flow", "ebbflow", "broken no-text"],
    [`${"<p>shoal</p>".repeat(80_000)}<p>at the very end`, "very%20end", "sound ok"],
  ])("in “%.30s” %s is %s: words end where blocks do", (words, text, verdict) => {
    expect(judged(`${page}${words}`, `${at}#:~:text=${text}`)).toBe(verdict);
  });

  test("are not missed on a page that a script makes of itself", () => {
    expect(judged("<title>T</title><h1>H</h1><div id=app></div>", `${at}#:~:text=fifth`)).toBe(
      "unsure part-unread",
    );
  });
});
