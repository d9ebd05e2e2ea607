import { expect, test } from "@jest/globals";
import { asksFront, judgeGuard } from "./judge-guard.ts";
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
const verdict = (arrived: Outcome, refusal: PageFacts | null, front: Hop | null) =>
  judgeGuard(arrived, refusal, front).code;

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

test("a door for members asks who somebody is, or its host's front page opens", () => {
  expect(verdict(refused(403), page("Members only", "Your club card opens it."), hop(200))).toBe("guarded");
  expect(verdict(refused(403, { asksWho: true }), page("Just a moment"), hop(403))).toBe("guarded");
  expect(verdict(refused(403), page("Forbidden"), hop(403))).toBe("shut-to-programs");
  expect(verdict(refused(403), null, hop(429))).toBe("shut-to-programs");
  expect(verdict(refused(429), page("Too many"), hop(429))).toBe("status");
  expect([
    asksFront(refused(403)),
    asksFront(refused(403, { asksWho: true })),
    asksFront(refused(503)),
  ]).toEqual([true, false, false]);
});
