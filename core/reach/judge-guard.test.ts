import { expect, test } from "@jest/globals";
import { asksOthers, judgeGuard, type OthersOfHost } from "./judge-guard.ts";
import { outcome, type Hop, type Outcome } from "./outcome.ts";
import { PageReader, nothingWanted, type PageFacts } from "./page-reader.ts";

const hop = (status: number, more: Partial<Hop> = {}): Hop => ({
  method: "GET",
  address: "https://tides.example/a",
  status,
  location: null,
  type: "text/html",
  failure: null,
  ms: 1,
  ...more,
});
const refused = (status: number, more: Partial<Hop> = {}): Outcome =>
  outcome(status === 403 ? "guarded" : "unsure", status === 403 ? "guarded" : "status", [hop(status, more)]);
const page = (title: string, text = ""): PageFacts => {
  const reader = new PageReader(nothingWanted);
  reader.push(`<title>${title}</title><p>${text}`);
  reader.end();
  return reader.facts();
};
const verdict = (arrived: Outcome, refusal: PageFacts | null, others: OthersOfHost | null) =>
  judgeGuard(arrived, refusal, others).code;
const others = (front: Hop, missing: Hop | null = null): OthersOfHost => ({ front, missing });

// Common practice: what guards against programs say of themselves.
test.each([
  ["Just a moment...", ""],
  ["Attention Required!", ""],
  ["tides.example", "Checking your browser before you go on."],
  ["tides.example", "Please verify you are human."],
  ["Access denied", "Our systems have detected unusual traffic."],
  ["Pardon Our Interruption", ""],
  ["403", "Enable JavaScript and cookies to continue."],
])("a refusal that says “%s”, “%s” is one to programs", (title, text) => {
  for (const status of [403, 429, 503])
    expect([status, verdict(refused(status), page(title, text), null)]).toEqual([status, "shut-to-programs"]);
});

test("a door for members asks who somebody is, or its host's other pages answer", () => {
  const door = refused(403);
  const words = page("Members only", "Your club card opens it.");
  expect(verdict(door, words, others(hop(200), hop(404)))).toBe("guarded");
  // A host that has a page for every name, and one whose door asks at all of them.
  expect(verdict(door, words, others(hop(200), hop(200)))).toBe("guarded");
  expect(verdict(door, words, others(hop(200), hop(403, { asksWho: true })))).toBe("guarded");
  expect(verdict(door, words, others(hop(200), hop(429)))).toBe("guarded");
  expect(verdict(refused(403, { asksWho: true }), page("Just a moment"), others(hop(403)))).toBe("guarded");
});

test("who refuses the front page, or a name that cannot exist, does so to more than members", () => {
  expect(verdict(refused(403), page("Forbidden"), others(hop(403)))).toBe("shut-to-programs");
  expect(verdict(refused(403), null, others(hop(429)))).toBe("shut-to-programs");
  expect(verdict(refused(403), page("Forbidden"), others(hop(200), hop(403)))).toBe("refuses-all");
  expect(verdict(refused(429), page("Too many"), others(hop(429)))).toBe("status");
  expect([
    asksOthers(refused(403)),
    asksOthers(refused(403, { asksWho: true })),
    asksOthers(refused(503)),
  ]).toEqual([true, false, false]);
});
