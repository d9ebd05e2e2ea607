import { expect, test } from "@jest/globals";
import type { Node } from "prosemirror-model";
import { bring } from "../../test/brought.ts";

/** A list as its kind with its items, or the words of any other block. */
function outlined(node: Node): unknown {
  if (!/_list$/.test(node.type.name)) return node.textContent;
  return [
    node.type.name === "bullet_list" ? "•" : `${node.attrs["start"]}.`,
    ...node.children.map((one) => one.children.map(outlined)),
  ];
}
const list = (tag: string, indent: string, ...items: string[]): string =>
  `<${tag}>${items.map((words) => `<li style="margin-left:${indent}">${words}</li>`).join("")}</${tag}>\n`;
const brought = async (body: string): Promise<unknown[]> => {
  const page = `<!doctype html><html lang="en"><h1>Tides</h1>${body}</html>`;
  return (await bring(new TextEncoder().encode(page))).chapters[0]!.children.slice(1).map(outlined);
};

test.each<[string, string, unknown[]]>([
  [
    "further in is a list within the item before it",
    list("ul", "36pt", "Low", "High") + list("ul", "72pt", "Spring") + list("ul", "36pt", "Slack"),
    [["•", ["Low"], ["High", ["•", ["Spring"]]], ["Slack"]]],
  ],
  [
    "in other units, of another kind and further still",
    list("ol", "48px", "Low") +
      list("ul", "1in", "Spring") +
      list("ol", "9em", "Now") +
      list("ol", "48px", "High"),
    [["1.", ["Low", ["•", ["Spring", ["1.", ["Now"]]]]], ["High"]]],
  ],
  [
    "as far in stays one of its own",
    list("ul", "36pt", "Low") + list("ul", "36pt", "High"),
    [
      ["•", ["Low"]],
      ["•", ["High"]],
    ],
  ],
  [
    "behind other words is one of its own",
    list("ul", "36pt", "Low") + "<p>Then</p>" + list("ul", "72pt", "High"),
    [["•", ["Low"]], "Then", ["•", ["High"]]],
  ],
  [
    "that says nothing of it stays where it is",
    "<ul><li>Low</ul><ol><li>High</ol>",
    [
      ["•", ["Low"]],
      ["1.", ["High"]],
    ],
  ],
])("a list %s", async (_what, body, then) => {
  expect(await brought(body)).toEqual(then);
});

test("a rule that nobody sees is none, and may begin a page", async () => {
  expect(await brought('<p>a</p><hr style="page-break-before:always;display:none"><p>b</p>')).toEqual([
    "a",
    "",
    "b",
  ]);
});
