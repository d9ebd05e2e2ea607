import type { Case, Cases } from "./case.ts";

const office = "https://tides.example/";

/** A link with these attributes, in a block of its own. */
const styled = (attrs: object, words = "the office"): Case => ({
  text: "",
  blocks: [
    {
      type: "paragraph",
      content: [
        { type: "text", text: "What the tides of today are like you hear at " },
        {
          type: "text",
          text: words,
          marks: [
            {
              type: "link",
              attrs: { id: "l", destination: { kind: "web", address: office }, description: null, ...attrs },
            },
          ],
        },
        { type: "text", text: ", which opens at nine." },
      ],
    },
  ],
});
const looked = (colour: string, underline = "none", more: object = {}): Case =>
  styled({ look: { colour, underline, bold: false }, ...more });

/** Cases of rules that look at how links look, and at what is said of them besides. */
export const lookCases: readonly Cases[] = [
  {
    rule: "looks-like-text",
    source: "SC 1.4.1, failure F73",
    wrong: ["a", "it", "the office", "low water", "here", "1", "Orla", "→", "the plan", "海"].map((words) =>
      styled({ asText: true }, words),
    ),
    right: ["a", "it", "the office", "low water", "here", "1", "Orla", "→", "the plan", "海"].map((words) =>
      styled({ asText: false }, words),
    ),
  },
  {
    rule: "own-look",
    source: "WCAG 2.2, contrast ratio; values of `../shared/standards.md`, recomputed with `wcag-contrast`",
    wrong: [
      [looked("#777777", "solid"), "the look of its kind"],
      [looked("#0000ee"), "the look of its kind"],
      [looked("#f4f4f4", "solid"), "the look of its kind"],
      [looked("#ffff00", "solid"), "the look of its kind"],
      [looked("#999999", "dotted"), "the look of its kind"],
      [looked("#1c1a17"), "the look of its kind"],
      [looked("#333333"), "the look of its kind"],
      [looked("#00aa00", "solid"), "the look of its kind"],
      [looked("#ff6600"), "the look of its kind"],
      [looked("#7f7f7f", "dashed"), "the look of its kind"],
    ],
    right: [
      looked("#767676", "solid"),
      looked("#0000ee", "dotted"),
      looked("#0000ee", "solid"),
      looked("#000000", "solid"),
      looked("#1c1a17", "dashed"),
      looked("#6a5acd"),
      looked("#d40000"),
      looked("#777777", "solid", { asText: true }),
      styled({}),
      looked("#a0522d", "solid"),
    ],
  },
  {
    rule: "description-repeats",
    source: "technique H33 (from memory)",
    wrong: [
      "The  Office",
      "the office",
      "THE OFFICE",
      " the office ",
      "The Office",
      "the  office",
      "tHe office",
      "The office",
      "the office  ",
      "the\u00a0office",
    ].map((description): [string, string] => [
      `See [the office](${office} "${description}").`,
      "no description",
    ]),
    right: [
      ...[
        "Tables of the Sound",
        "The office of the Sound",
        "office",
        "the offices",
        "Opens the office",
        "the office (PDF)",
        "The tide office",
        "office the",
        "the-office",
      ].map((description) => `See [the office](${office} "${description}").`),
      `See [the office](${office}).`,
      { text: `See [the office](${office} "the office").`, describesAll: true },
    ],
  },
  {
    rule: "description-lacking",
    source: "ISO 14289-1 7.18.5, Matterhorn Protocol 28-012 (from memory)",
    wrong: [
      "the office",
      "a",
      "here",
      "Orla",
      "1",
      "→",
      "海",
      "low water",
      "the plan (PDF)",
      "the  office",
    ].map((words): [Case, string] => [{ text: `See [${words}](${office}).`, describesAll: true }, words]),
    right: [
      ...["the office", "a", "here", "Orla", "1"].map((words) => `See [${words}](${office}).`),
      ...["the office", "a", "here", "Orla"].map((words): Case => ({
        text: `See [${words}](${office} "Tables of the Sound").`,
        describesAll: true,
      })),
      { text: `See [ ](${office}).`, describesAll: true },
    ],
  },
];
