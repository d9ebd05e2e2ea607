import type { Frame } from "../../manuscript/hotspot.ts";
import type { LinkOnPage, PageOfFile } from "../page-of-file.ts";
import type { Case, Cases } from "./case.ts";

const noFrame: Frame = { line: "none", colour: "#1d4f8f", thickness: 1 };
const blank: PageOfFile = { isBlank: true, links: [], dead: [] };
const full: PageOfFile = { isBlank: false, links: [], dead: [] };
const dead = (words: string, why: string): PageOfFile => ({ ...full, dead: [{ id: "left-1", words, why }] });

/** A link of the first page, whose document calls its links l0-0, l0-1 and so on. */
const link = (number: number, more: Partial<LinkOnPage> = {}): LinkOnPage => ({
  id: `l0-${number}`,
  name: "the huts",
  to: `https://tides.example/${number}`,
  isOnWords: true,
  boxes: [{ left: 0, top: number * 20, right: 100, bottom: number * 20 + 16 }],
  frame: noFrame,
  isInStructure: true,
  ...more,
});
const box = (left: number, top: number, width: number, height = width) => ({
  left,
  top,
  right: left + width,
  bottom: top + height,
});
/** A page with as many links on words, of which more is known. */
const page = (...links: LinkOnPage[]): Case => ({
  text: links.map((_, i) => `See [the huts](<https://tides.example/${i}>).`).join("\n\n"),
  pages: [{ ...full, links }],
});
const area = (
  number: number,
  ...at: [left: number, top: number, width: number, height?: number]
): LinkOnPage => link(number, { isOnWords: false, boxes: [box(...at)] });
const leads = (to: string, ...beside: PageOfFile[]): Case => ({
  text: `See [the huts](#${to}).\n\n## Above {above}`,
  beside: beside.map((_, i) => `Words.\n\n## Below ${i} {below-${i}}`),
  pages: [full, ...beside],
});

/** Cases of rules that look at the pages of finished files. */
export const pageCases: readonly Cases[] = [
  {
    rule: "cannot-be-followed",
    source: "ISO 32000-1 12.6.4, of what readers say in finished files (`core/finished`)",
    wrong: [
      ["the set-up", "It starts a program or opens a file on the reader’s own disk."],
      ["", "It starts a program or opens a file on the reader’s own disk."],
      ["count", "It runs a script."],
      ["", "It runs a script."],
      ["send", "It sends a form."],
      ["tables", "It does not say where it leads."],
      ["tables", "This leads to a file on your own disk. (file:///C:/tables.pdf)"],
      ["the tide office", "Links cannot run programs. (javascript:alert(1))"],
      ["low water", "This address has no host. (http://)"],
      ["a [b] “c”", "It runs a script."],
    ].map(([words, why]) => ({ text: "Words.", pages: [dead(words!, why!)] })),
    right: [
      { text: "Words.", pages: [full] },
      { text: "Words.", pages: [blank] },
      { text: "Words.", beside: ["Words."], pages: [full, dead("count", "It runs a script.")] },
      { text: "See [it](https://tides.example/).", pages: [full] },
      { text: "See [it](#title-0).", pages: [full] },
      { text: "See [it](#gone).", pages: [full] },
      { text: "See [it](tides.pdf).", pages: [full] },
      page(link(0)),
      page(link(0, { isOnWords: false, name: "" })),
      "See [it](https://tides.example/).",
    ],
  },
  {
    rule: "lands-on-blank",
    source: "common practice",
    wrong: [
      leads("title-1", blank),
      leads("below-0", blank),
      leads("title-2", full, blank),
      leads("below-1", full, blank),
      leads("title-3", full, full, blank),
      leads("title-1", blank, full),
      leads("title-2", blank, blank),
      { ...leads("title-1", blank), describesAll: true },
      { text: "See [it](#title-0).", pages: [blank] },
      { text: "[![A map](p)](#title-1)", beside: [""], pages: [full, blank] },
    ],
    right: [
      leads("title-1", full),
      leads("below-0", full),
      leads("title-2", blank, full),
      leads("above", blank),
      leads("title-0", blank),
      leads("gone", blank),
      { text: "See [it](#title-1).", beside: [""] },
      { text: "See [it](#title-1).", beside: [""], pages: [blank] },
      { text: "See [it](https://tides.example/).", pages: [blank] },
      { text: "See [it](companion:f#page=2).", pages: [full, blank] },
    ],
  },
  {
    rule: "outside-structure",
    source: "Matterhorn Protocol 28-011 (from memory)",
    wrong: [
      [page(link(0, { isInStructure: false })), "in the structure"],
      page(link(0), link(1, { isInStructure: false })),
      page(link(0, { isInStructure: false }), link(1)),
      page(link(0, { isInStructure: false }), link(1, { isInStructure: false })),
      page(link(0, { isInStructure: false, isOnWords: false })),
      page(link(0, { isInStructure: false, frame: { ...noFrame, line: "solid" } })),
      page(link(0, { isInStructure: false, boxes: [box(0, 0, 9), box(0, 20, 9)] })),
      page(link(0, { isInStructure: false, name: "" })),
      { ...page(link(0, { isInStructure: false })), describesAll: true },
      page(link(0), link(1), link(2, { isInStructure: false })),
    ],
    right: [
      page(link(0)),
      page(link(0), link(1)),
      page(link(0, { name: "" })),
      page(link(0, { isOnWords: false })),
      page(link(0, { id: "another", isInStructure: false })),
      { ...page(link(0)), describesAll: true },
      { text: "See [it](https://tides.example/).", describesAll: true },
      { text: "See [it](https://tides.example/).", pages: [full] },
      "See [it](https://tides.example/).",
      { text: "Words.", pages: [blank] },
    ],
  },
];

/** Cases of rules that look at pictures too, of which pages have areas and frames likewise. */
export const casesOnPages = {
  "frame-faint": {
    wrong: ["#cccccc", "#ffff00"].map((colour) =>
      page(link(0, { frame: { line: "solid", colour, thickness: 1 } })),
    ),
    right: [
      page(link(0, { frame: { line: "solid", colour: "#1d4f8f", thickness: 1 } })),
      page(link(0, { frame: { line: "none", colour: "#ffff00", thickness: 1 } })),
    ],
  },
  "hotspot-overlap": {
    wrong: [
      page(link(0, { boxes: [box(0, 0, 100, 16)] }), link(1, { boxes: [box(0, 4, 100, 16)] })),
      page(link(0, { boxes: [box(0, 0, 50, 16), box(0, 20, 9, 16)] }), area(1, 0, 0, 60)),
    ],
    right: [
      // Lines of words whose boxes touch; one place told twice.
      page(link(0, { boxes: [box(0, 0, 100, 16)] }), link(1, { boxes: [box(0, 12, 100, 16)] })),
      page(
        link(0, { to: "mailto:a@b.example" }),
        link(1, { to: "mailto:a@b.example", boxes: link(0).boxes }),
      ),
      page(link(0, { boxes: [box(0, 0, 0)] }), link(1, { boxes: [box(0, 0, 50)] })),
    ],
  },
  "hotspot-small": {
    wrong: [
      page(area(0, 0, 0, 10), area(1, 12, 0, 10)),
      page(area(0, 0, 0, 40, 8), area(1, 0, 9, 100, 16)),
      page(area(0, 0, 0, 20), area(1, 0, 21, 60, 60)),
    ],
    right: [
      page(area(0, 0, 0, 24), area(1, 24, 0, 24)),
      // Words whose letters the file does not tell, in a line of links; one link in two pieces.
      page(area(0, 0, 0, 15, 13), link(1, { boxes: [box(16, 0, 60, 13)] })),
      page(area(0, 0, 0, 5, 10), { ...area(1, 0, 11, 20, 10), to: "https://tides.example/0" }),
      // As much room around it; words of a line (SC 2.5.8, spacing and inline).
      page(area(0, 0, 0, 10), area(1, 40, 0, 10)),
      page(area(0, 0, 0, 10)),
      page(link(0, { boxes: [box(0, 0, 10)] }), link(1, { boxes: [box(12, 0, 10)] })),
    ],
  },
} satisfies Record<string, Pick<Cases, "wrong" | "right">>;
