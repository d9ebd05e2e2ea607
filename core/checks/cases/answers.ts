import type { KnownAnswer } from "../finding.ts";
import type { Case, Cases } from "./case.ts";

type State = KnownAnswer["state"];
const page = "https://tides.example/tables";
const states: State[] = ["sound", "moved", "guarded", "broken", "unsure"];
/** Destinations that can be asked, each in a chapter of its own. */
const asked = [
  page,
  `${page}#low`,
  "http://tides.example/",
  "https://tides.example/?day=2",
  "mailto:orla@tides.example",
  "mailto:orla@tides.example,pell@byre.test",
  "https://приливы.рф/",
];

const link = (address: string, known: State | Partial<KnownAnswer>): Case => ({
  text: `See [the tables](${address}).`,
  asked: { [address]: known },
});
const shared = (state: State): Case => ({
  text: "See [the plan](share:https://drive.example/s/1).",
  asked: { "https://drive.example/s/1": state },
});
/** Chapters in which a destination is in this state, and ones in which it is in another, or was not asked. */
const byState = (state: State): Pick<Cases, "wrong" | "right"> => ({
  wrong: [
    ...asked.map((address) => link(address, state)),
    shared(state),
    { text: `[One](${page}) [two](https://tides.example/b)`, asked: { [page]: state } },
    { text: `![](p) [it](${page})`, asked: { [page]: state } },
  ],
  right: [
    ...states.filter((other) => other !== state).map((other) => link(page, other)),
    ...states.filter((other) => other !== state).map((other) => shared(other)),
    { text: `See [the tables](${page}).` },
    { text: `See [the tables](${page}#low).`, asked: { [page]: state } },
    { text: "See [low water](#title-0).", asked: { [page]: state } },
    { text: "See [the plan](plan.pdf).", asked: { [page]: state } },
  ],
});

/** The same, and ones at which somebody has looked. */
function openUntilLooked(state: State): Pick<Cases, "wrong" | "right"> {
  const { wrong, right } = byState(state);
  return { wrong, right: [...right, link(page, { state, lookedAt: "2026-11-27T00:00:00.000Z" })] };
}

const then = { title: "Tide tables", headings: ["Tide tables", "Spring"] };
const now = { title: "Houses by the sea", headings: ["To let"] };
const nameless = { title: null, headings: [] };

const moved = (from: string, movedTo: string): [Case, string] => [
  link(from, { state: "moved", movedTo }),
  movedTo,
];
const secure = (http: string): [Case, string] => {
  const https = http.replace("http:", "https:");
  return [link(http, { secure: https }), https];
};
const short = (address: string, known?: State | Partial<KnownAnswer>): Case => ({
  text: `See [the tables](${address}).`,
  ...(known ? { asked: { [address]: known } } : {}),
});
const leads = (address: string, endsAt: string): [Case, string] => [short(address, { endsAt }), endsAt];

/** Cases of rules that look at what asking a destination showed. */
export const answerCases: readonly Cases[] = [
  {
    rule: "destination-broken",
    source: "RFC 9110, section 15.5 (from memory)",
    wrong: [
      ...byState("broken").wrong,
      [
        {
          ...link(page, { state: "broken", keptCopy: "f" }),
          files: { f: { name: "tables (kept copy).html", mediaType: "text/html", size: 9 } },
        },
        "companion:f",
      ],
      [link(page, { state: "broken", keptCopy: "gone" }), null],
    ],
    right: byState("broken").right,
  },
  {
    rule: "destination-guarded",
    source: "RFC 9110, 15.5.2 and 15.5.4 (from memory)",
    ...openUntilLooked("guarded"),
  },
  {
    rule: "destination-unsure",
    source: "RFC 9110, section 15.6 (from memory)",
    ...openUntilLooked("unsure"),
  },
  {
    rule: "destination-moved",
    source: "RFC 9110, sections 15.4.2 and 15.4.9 (from memory)",
    wrong: [
      moved(page, "https://tides.example/now"),
      moved(page, "https://other.example/tables"),
      moved(`${page}#low`, "https://tides.example/now#low"),
      moved("http://tides.example/a", "https://tides.example/a"),
      moved("https://tides.example/a?b=1", "https://tides.example/a?b=2"),
      moved("https://tides.example", "https://www.tides.example/"),
      moved("https://tides.example/a", "https://tides.example/a/"),
      moved("https://tides.example/é", "https://tides.example/e"),
      [
        {
          text: "See [the plan](share:https://drive.example/s/1).",
          asked: { "https://drive.example/s/1": { state: "moved", movedTo: "https://drive.example/s/2" } },
        },
        "https://drive.example/s/2",
      ],
      [link(page, { state: "moved", movedTo: null }), null],
    ],
    right: byState("moved").right,
  },
  {
    rule: "page-changed",
    source: "common practice; what counts as changed is judged on pairs of pages (core/reach)",
    wrong: [
      ...(["page", "part", "hands"] as const).flatMap((what) => [
        link(page, { change: { what, then, now } }),
        link(`${page}#low`, { change: { what, then, now: then } }),
        link("http://tides.example/", { state: "moved", movedTo: page, change: { what, then, now } }),
      ]),
      link(page, { change: { what: "page", then: nameless, now: nameless } }),
    ],
    right: [
      ...states.map((state) => link(page, state)),
      ...(["guarded", "broken", "unsure"] as const).map((state) =>
        link(page, { state, change: { what: "page", then, now } }),
      ),
      `See [the tables](${page}).`,
      { text: `See [the tables](${page}#low).`, asked: { [page]: { change: { what: "page", then, now } } } },
      "See [low water](#title-0).",
    ],
  },
  {
    rule: "certificate-ends",
    source: "RFC 5280, section 4.1.2.5 (from memory)",
    wrong: [
      ...asked.slice(0, 4).map((address) => link(address, { certificateEnds: "2026-12-05T00:00:00.000Z" })),
      ...["/a", "/b", "/c", "/d", "/e", "/f"].map((path) =>
        link(`https://tides.example${path}`, { state: "moved", certificateEnds: "2026-12-05T00:00:00.000Z" }),
      ),
    ],
    right: [
      ...states.map((state) => link(page, state)),
      ...(["guarded", "broken", "unsure"] as const).map((state) =>
        link(page, { state, certificateEnds: "2026-12-05T00:00:00.000Z" }),
      ),
      `See [the tables](${page}).`,
      { text: `See [it](${page}?a).`, asked: { [page]: { certificateEnds: "2026-12-05T00:00:00.000Z" } } },
    ],
  },
  {
    rule: "https-answers",
    source: "RFC 9110, section 4.2.2 (from memory)",
    wrong: [
      "/",
      "/a",
      "/a?b=1",
      "/a#b",
      "/caf%C3%A9",
      "/a/b/c",
      "/x.pdf",
      "/~orla",
      "/a%20b",
      "/?q=http://x",
    ].map((path) => secure(`http://tides.example${path}`)),
    right: [
      ...["/", "/a", "/a?b=1", "/a#b"].map((path) => link(`http://tides.example${path}`, "sound")),
      ...states.slice(1).map((state) => link("http://tides.example/", state)),
      "See [the tables](http://tides.example/).",
      link("https://tides.example/", "sound"),
    ],
  },
  {
    rule: "short-address",
    source: "common practice: services that shorten addresses",
    wrong: [
      leads("https://bit.ly/tides", "https://tides.example/tables"),
      leads("http://tinyurl.com/tides", "https://tides.example/"),
      leads("https://t.co/abc", "https://tides.example/a#b"),
      leads("https://www.tinyurl.com/tides", "https://tides.example/"),
      leads("https://ow.ly/abc", "https://other.example/x?y=1"),
      [short("https://is.gd/abc"), null],
      [short("https://goo.gl/abc", "unsure"), null],
      [short("https://rb.gy/abc", "guarded"), null],
      [short("https://bit.ly/a", { endsAt: "https://tinyurl.com/b" }), null],
      [short("https://cutt.ly/abc"), null],
      [short("https://lnkd.in/abc", "sound"), null],
    ],
    right: [
      short("https://bit.ly/tides", "broken"),
      short("https://bit.ly/tides", { state: "moved", movedTo: "https://tides.example/" }),
      short("https://bit.ly/"),
      short("https://tides.example/bit.ly/abc"),
      short("https://orbit.ly/abc"),
      short("https://bit.lyon.example/abc"),
      short("https://tides.example/?u=https://bit.ly/abc"),
      short("https://t.com/abc"),
      short("https://go.example/abc"),
      short(page, { endsAt: "https://tides.example/now" }),
    ],
  },
];
