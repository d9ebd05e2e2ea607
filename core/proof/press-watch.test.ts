import { expect, test } from "@jest/globals";
import { PressWatch } from "./press-watch.ts";

type Step = [tag: string, attributes?: Record<string, string>] | "leave";

function watched(...steps: Step[]): PressWatch {
  const watch = new PressWatch("page");
  for (const step of steps) {
    if (step === "leave") watch.leave();
    else watch.enter(step[0], step[1] ?? {});
  }
  return watch;
}

test.each<[string, Step[]]>([
  ["hidden", [["p", { hidden: "" }], ["a"]]],
  ["inert", [["section", { inert: "" }], ["p"], ["a"]]],
  ["hidden from screen readers", [["a", { "aria-hidden": "true" }]]],
  ["a style", [["a", { style: "display:none" }]]],
  ["an attribute of SVG", [["a"], ["rect", { "pointer-events": "none" }]]],
  ["no key", [["a", { tabindex: "-1" }]]],
  ["another role", [["a", { role: "presentation" }]]],
])("a link is out of reach: %s", (_, steps) => {
  expect(watched(...steps).unreachable).not.toBeNull();
});

test("what is closed again, or another thing, keeps nobody from a link", () => {
  const steps: Step[] = [
    ["p", { hidden: "" }],
    "leave",
    ["p", { style: "color:#b03020" }],
    ["a", { role: "doc-noteref" }],
  ];
  const watch = watched(...steps);
  expect(watch.unreachable).toBeNull();
  expect(watch.faults).toEqual([]);
});

test.each<[string, Step[]]>([
  ["a script", [["script"]]],
  ["a base address", [["base", { href: "https://elsewhere.example/" }]]],
  ["a page that leads away", [["head"], ["meta", { "http-equiv": "Refresh", content: "0" }]]],
  ["a page laid out for a screen of its own", [["head"], ["meta", { name: "viewport", content: "width=1" }]]],
  [
    "what asks readers’ programs for something",
    [["head"], ["meta", { "http-equiv": "Content-Security-Policy" }]],
  ],
  ["a title in the text", [["body"], ["title"]]],
  ["an element of which nothing is known", [["body"], ["template"]]],
  ["an attribute of which nothing is known", [["a", { href: "#a", download: "a" }]]],
  ["an event", [["body", { onclick: "x()" }]]],
  ["two equal names", [["p", { id: "a" }], "leave", ["p", { id: "a" }]]],
  ["a thing laid over the page", [["div", { style: "position:fixed;inset:0" }]]],
  ["a shape over areas", [["svg"], ["a"], ["rect"], "leave", "leave", ["rect"]]],
])("a fault of the page is told: %s", (_, steps) => {
  expect(watched(...steps).faults).toHaveLength(1);
});
