import { describe, expect, test } from "@jest/globals";
import { parse } from "parse5";
import { reportPage, type Report, type ReportedFinding, type ReportedRun } from "./report.ts";

const finding = (more: Partial<ReportedFinding> = {}): ReportedFinding => ({
  rule: "says-nothing",
  title: "The words say nothing by themselves",
  severity: "fix",
  source: "WCAG 2.2 SC 2.4.4",
  message: "“here” does not say where it leads.",
  chapter: "Tides",
  text: "here",
  before: "Look ",
  after: " first.",
  address: "https://tides.example/",
  accepted: null,
  ...more,
});
const run = (more: Partial<ReportedRun> = {}): ReportedRun => ({
  endedAt: "2026-11-25T03:00:30.000Z",
  asked: 12,
  counts: { sound: 9, moved: 1, guarded: 0, broken: 2, unsure: 0, unchecked: 0 },
  newlyBroken: 0,
  wellAgain: 0,
  ...more,
});
const page = (more: Partial<Report> = {}): string =>
  reportPage({
    title: "The Causeways",
    author: "Orla Tindrum",
    language: "en",
    madeAt: "2026-11-25T04:05:06.000Z",
    findings: [],
    runs: [],
    ...more,
  });

describe("the report", () => {
  test("says at once how the book stands", () => {
    expect(page()).toContain("The rules find nothing to put right.");
    expect(page()).toContain("Its destinations have not been checked yet.");
    expect(page()).toContain("Checked on 2026-11-25 04:05 UTC.");
    const findings = [finding(), finding({ severity: "stop" }), finding({ severity: "consider" }), finding()];
    expect(page({ findings })).toContain("Findings: 1 that stops the export, 2 to fix, 1 to consider.");
    expect(page({ runs: [run()] })).toContain(
      "last checked on 2026-11-25 03:00 UTC (12 checked): none newly broken.",
    );
    expect(page({ runs: [run(), run({ newlyBroken: 2, wellAgain: 1 })] })).toContain(
      "2 newly broken, 1 well again.",
    );
  });

  test("lists the gravest first, rule by rule, each link in its sentence, and what was accepted with its reason", () => {
    const text = page({
      findings: [
        finding({ severity: "consider", rule: "raw-address", title: "The words are a raw address" }),
        finding(),
        finding({ text: "there" }),
        finding({ accepted: "Its sentence says it.", title: "An accepted one", rule: "other" }),
      ],
    });
    const headings = [...text.matchAll(/<h[23]>(.*?)<\/h[23]>/g)].map(([, words]) => words);
    expect(headings).toEqual([
      "Fix",
      "The words say nothing by themselves (2)",
      "Consider",
      "The words are a raw address (1)",
      "Accepted, with the reasons",
      "An accepted one (1)",
    ]);
    expect(text).toContain("<div>Look <mark>here</mark> first.</div>");
    expect(text).toContain("Accepted: Its sentence says it.");
    expect(text).toContain("Tides · <code>https://tides.example/</code>");
  });

  test("shows the last twelve runs in numbers, the newest first", () => {
    const runs = Array.from({ length: 15 }, (_, i) => run({ counts: { ...run().counts, sound: 100 + i } }));
    const text = page({ runs });
    expect([...text.matchAll(/<td class="n">(1\d\d)<\/td>/g)].map(([, count]) => Number(count))).toEqual(
      Array.from({ length: 12 }, (_, i) => 114 - i),
    );
  });

  test("is one page that needs nothing else, and lets no word of the book be markup", () => {
    const nasty = '<script src="https://a.example/x.js"></script>&"';
    const text = page({
      title: nasty,
      author: nasty,
      findings: [
        finding({ title: nasty, message: nasty, text: nasty, before: nasty, chapter: nasty, address: nasty }),
      ],
    });
    const tags = new Set<string>();
    const addresses: string[] = [];
    const walk = (node: any): void => {
      if (node.tagName) tags.add(node.tagName);
      for (const { name, value } of node.attrs ?? [])
        if (name === "href" || name === "src") addresses.push(value);
      for (const child of node.childNodes ?? []) walk(child);
    };
    walk(parse(text));
    expect(tags.has("script")).toBe(false);
    expect(addresses).toEqual(["data:,"]);
  });
});
