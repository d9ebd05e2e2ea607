import type { Case, Cases } from "./case.ts";
import { mapWithAreas, type Area } from "./pictures.ts";

const office = "https://tides.example/";
/** An area over all of a picture. */
const whole = (alt: string): Area => ({
  points: [
    [0, 0],
    [1, 1],
  ],
  alt,
});
const called = (...words: string[]): string[] =>
  words.map((one) => `Look [${one.replace(/[[\]]/g, "\\$&")}](${office}) first of all.`);
const inLanguage = (language: string, ...words: string[]): Case[] =>
  called(...words).map((text) => ({ text, language }));

const coded = (words: string): Case => ({
  text: "",
  blocks: [
    {
      type: "paragraph",
      content: [
        {
          type: "text",
          text: words,
          marks: [
            {
              type: "link",
              attrs: { id: "l", destination: { kind: "web", address: office }, description: null },
            },
            { type: "code" },
          ],
        },
      ],
    },
  ],
});
const shown = (words: string, address: string): string => `See [${words}](<${address}>).`;
const pair = (one: string, first: string, other: string, second: string): string =>
  `See [${one}](${first}), and then [${other}](${second}).`;

/** Cases of rules that look at the words of links. */
export const wordCases: readonly Cases[] = [
  {
    rule: "no-name",
    source:
      "ACT rule c487ae, its passed and failed examples turned into links of a book (from memory); failure F89",
    wrong: [
      `A [](${office}) B`.replace("[]", "[ ]"),
      `A [\u00a0](${office}) B`,
      `A [   ](${office}) B`,
      `[![](p)](${office})`,
      `[![ ](p)](${office})`,
      `A [![](p)](mailto:orla@tides.example) B`,
      `A [![](p)](companion:f) B`,
      `A [\u2003](#x) B`,
      { text: "", blocks: [mapWithAreas([whole("")])] },
      { text: "", blocks: [mapWithAreas([whole(" ")])] },
      `A [![](p)![](q)](${office}) B`,
    ],
    right: [
      `[the office](${office})`,
      `[![The tide office](p)](${office})`,
      `[![](p) the office](${office})`,
      `[the office ![](p)](${office})`,
      `[1](${office})`,
      `[→](${office})`,
      `[.](${office})`,
      { text: "", blocks: [mapWithAreas([whole("The tide office")])] },
      `![](p)`,
      `[海](${office})`,
      `[![](p)![The office](q)](${office})`,
    ],
  },
  {
    rule: "says-nothing",
    source: "WCAG failures F63 and F84, technique G91, ACT rules 5effbb and aizyf1 (from memory)",
    wrong: [
      ...called(
        "here",
        "Click here",
        "» read more …",
        "this page",
        "More",
        "this article",
        "this one",
        "link",
      ),
      ...called("Learn more", "(here)", "here.", "HERE", "more info", "this link", "Download"),
      ...inLanguage("de", "Hier klicken", "hier", "mehr", "weiterlesen"),
      ...inLanguage("fr", "En savoir plus", "ici", "cliquez ici"),
      ...inLanguage("es", "aquí", "más información"),
      ...inLanguage("nl", "Lees meer", "klik hier"),
      ...inLanguage("da", "Læs mere", "her", "read more"),
      `[![here](p)](${office})`,
      shown("Go here", "https://tides.example/go"),
      { text: `[here](${office})`, language: "ja" },
    ],
    right: [
      ...called("tide tables for today", "read more about the tides", "the page of the wardens", "Hereford"),
      ...called(
        "the download page of the office",
        "Go west",
        "Linkoping",
        "Moreton",
        "this causeway",
        "Here be tides",
      ),
      ...called("Details of the ferry", "more than a tide", "Next: the way", "Back to the fifth post"),
      ...inLanguage("de", "Hierher", "Mehrere Fluten", "Weitermarkt"),
      ...inLanguage("en", "hier", "ici"),
      ...inLanguage("fr", "ici commence la marée"),
      shown("Go", "https://go.test/"),
      shown("Go", "https://tides.example/golang"),
      shown("start", "https://tides.example/functions/start.html"),
      shown("here", "https://here.test/maps"),
      shown("Link", "https://www.link.test/"),
      coded("CONTINUE"),
      coded("next"),
    ],
  },
  {
    rule: "thin-words",
    source:
      "WCAG 2.2 SC 2.5.8; common practice: entries of an index, grades, languages and options of programs",
    wrong: called("→", "¶", "a", "…", "*", "é", "-", "“", "↩", ".", "#", "§", "[*]", "(?)", "- a", "a-"),
    right: called(
      "3",
      "R1",
      "it",
      "C",
      "C#",
      "C++",
      "-F",
      "海",
      "[1]",
      "(2)",
      "Ä",
      "42",
      "R",
      "あ",
      "가",
      "B*",
      "№ 5",
    ).concat(`[d](${office})`, `[e](${office}) the exponent`),
  },
  {
    rule: "long-words",
    source: "common practice: 100 characters",
    wrong: [0, 1, 2, 5, 10, 20, 50, 100, 200, 400].map(
      (more) => `[${"tide ".repeat(20)}${"e".repeat(1 + more)}](${office})`,
    ),
    right: [0, 1, 2, 5, 10, 20, 50, 80, 90, 98].map((less) => `[${"e".repeat(100 - less)}](${office})`),
  },
  {
    rule: "same-words",
    source: "ACT rules b20e66 and fd3a94, their examples turned into links of a book (from memory); SC 3.2.4",
    wrong: [
      pair("the office", office, "the office", "https://other.example/"),
      pair("The  office", office, "the office", "https://other.example/"),
      pair("it is", "https://tides.example/a", "It is", "https://tides.example/a?day=2"),
      pair("it is", "https://tides.example/a", "it is", "https://tides.example/b"),
      pair("it is", "https://tides.example:8080/a", "it is", "https://tides.example/a"),
      pair("Orla", "mailto:orla@tides.example", "Orla", "mailto:pell@tides.example"),
      pair("the plan", "companion:f", "the plan", "companion:g"),
      pair("low water", "#title-0", "low water", "#title-1"),
      { text: `[the office](${office})`, beside: ["[The office](https://other.example/)"] },
      { text: `[contact](${office})`, beside: ["[contact](mailto:orla@tides.example)"] },
      pair("the plan", "companion:f#page=2", "the plan", "companion:f#page=3"),
    ],
    right: [
      pair("the office", office, "The office", office),
      pair("it is", "https://tides.example/a", "it is", "https://tides.example/a#low"),
      pair("it is", "https://tides.example/a", "it is", "http://tides.example/a/"),
      pair("it is", "https://www.tides.example", "it is", "https://tides.example/"),
      pair("it is", "https://tides.example/a?b=1", "it is", "https://tides.example/a?b=1#c"),
      pair("the office", office, "the harbour", "https://other.example/"),
      pair("Orla", "mailto:orla@tides.example", "Orla", "mailto:orla@tides.example"),
      pair("the plan", "companion:f", "the plan", "companion:f"),
      { text: `[the office](${office})`, beside: [`[the office](${office})`] },
      `[the office](${office})`,
      pair("it is", "https://tides.example/a/", "it is", "https://tides.example/a"),
      pair("it is", "https://TIDES.example/a", "it is", "https://tides.example/a"),
      pair("it is", "https://tides.example/a", "it is", "https://tides.example/a?utm_source=letter"),
      {
        text: pair("it is", "https://tides.example/a", "it is", "https://tides.example/en/a"),
        asked: { "https://tides.example/a": { endsAt: "https://tides.example/en/a" } },
      },
    ],
  },
  {
    rule: "neighbours",
    source: "WCAG technique H2, its examples (from memory)",
    wrong: [
      `[the office](${office}) [of the Sound](${office})`,
      `[the](${office})[office](${office})`,
      `[![](p)](${office}) [the office](${office})`,
      `[![](p)](${office})[the office](${office})`,
      `[the plan](companion:f) [PDF](companion:f)`,
      `[Orla](mailto:orla@tides.example) [by mail](mailto:orla@tides.example)`,
      `[low](#title-0) [water](#title-0)`,
      `[a](${office})  [b](${office})`,
      `[a](${office})\u00a0[b](${office})`,
      `See [the office](${office}) [and its tables](${office}).`,
    ],
    right: [
      `[the office](${office}) and [the office](${office})`,
      `[the office](${office}) [the sea](https://other.example/)`,
      `[the office](${office}), [its tables](${office})`,
      `[the office](${office})\n\n[its tables](${office})`,
      `[a](${office}) [b](https://tides.example/#low)`,
      `[the office](${office})`,
      `[the plan](companion:f) [PDF](companion:f#page=2)`,
      `[a](${office}). [b](${office})`,
      `[a](${office}) ^n [b](${office})\n\n^n: x`,
      `[a](#title-0) [b](#title-1)`,
    ],
  },
  {
    rule: "raw-address",
    source: "technique G91 (from memory)",
    wrong: [
      shown("https://tides.example/", office),
      shown("www.tides.example", "https://www.tides.example/"),
      shown("http://tides.example/a?b=1", "http://tides.example/a?b=1"),
      shown("https://tides.example/one#two", "https://tides.example/one#two"),
      shown("HTTPS://TIDES.EXAMPLE/", office),
      shown("https://tides.example:8080/", "https://tides.example:8080/"),
      shown("www.tides.example/today", office),
      shown("https://приливы.рф/", "https://приливы.рф/"),
      shown("http://192.0.2.1/", "http://192.0.2.1/"),
      [
        { text: shown("https://tides.example/", office), asked: { [office]: { title: "Tide tables" } } },
        "Tide tables",
      ],
    ],
    right: [
      shown("the office", office),
      shown("Tides of www.tides.example", office),
      shown("tides", office),
      shown("README.md", office),
      shown("orla@tides.example", "mailto:orla@tides.example"),
      shown("orla@tides.example", office),
      shown("https is safer", office),
      shown("ten:thirty", office),
      shown("the http header", office),
      shown("2026/11/27", office),
      shown("C:\\\\tides", office),
    ],
  },
  {
    rule: "outer-blank",
    source: "common practice: the link covers the words alone",
    wrong: [
      [`See [the office ](${office})first.`, "the office"],
      [`See[ the office](${office}) first.`, "the office"],
      [`See[ the office ](${office})first.`, "the office"],
      [`See [the office\u00a0](${office})first.`, "the office"],
      [`See [the office  ](${office})first.`, "the office"],
      [`[ Orla](mailto:orla@tides.example)`, "Orla"],
      [`[plan ](companion:f)`, "plan"],
      [`[low water ](#title-0)`, "low water"],
      [`[\tthe office](${office})`, "the office"],
      [`[the office\u2009](${office})`, "the office"],
    ],
    right: [
      `See [the office](${office}) first.`,
      `[the  office](${office})`,
      `[the office.](${office})`,
      `[(the office)](${office})`,
      `[ ](${office})`,
      `[Orla](mailto:orla@tides.example)`,
      `[plan](companion:f)`,
      `[![The office](p)](${office})`,
      `[1](${office}) [2](https://other.example/)`,
      `[the\u00a0office](${office})`,
    ],
  },
];
