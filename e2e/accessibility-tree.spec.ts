import { expect, openDemo, openOwnBook, saved, selectWords, test, text } from "./fixtures";

type Page = import("@playwright/test").Page;

interface TreeNode {
  role: string;
  name: string;
  properties: Record<string, unknown>;
}

/** Chromium's own accessibility tree of the page, in the order in which it is read, without what it ignores. */
async function tree(page: Page): Promise<TreeNode[]> {
  const session = await page.context().newCDPSession(page);
  const { nodes } = await session.send("Accessibility.getFullAXTree");
  await session.detach();
  const byId = new Map(nodes.map((node) => [node.nodeId, node]));
  const walk = (id: string): typeof nodes => {
    const node = byId.get(id);
    return node ? [node, ...(node.childIds ?? []).flatMap(walk)] : [];
  };
  const root = nodes.find(({ parentId }) => parentId === undefined)!;
  return walk(root.nodeId)
    .filter(({ ignored }) => !ignored)
    .map(({ role, name, properties = [] }) => ({
      role: String(role?.value ?? ""),
      name: String(name?.value ?? ""),
      properties: Object.fromEntries(properties.map((one) => [one.name, one.value.value])),
    }));
}

/** What is wrong with a tree: what takes the focus and has no name or role, landmarks and headings out of their order. */
function faults(nodes: TreeNode[]): string[] {
  const found: string[] = [];
  const landmarks = (role: string): number => nodes.filter((node) => node.role === role).length;
  if (landmarks("main") !== 1) found.push(`${landmarks("main")} main landmarks`);
  if (landmarks("banner") !== 1) found.push(`${landmarks("banner")} banners`);
  for (const { role, name, properties } of nodes) {
    if (properties["focusable"] !== true || role === "RootWebArea" || role === "main") continue;
    if (name === "") found.push(`a ${role} without a name`);
    if (["generic", "none", ""].includes(role)) found.push(`“${name}” takes the focus and has no role`);
  }
  const levels = nodes
    .filter(({ role }) => role === "heading")
    .map(({ properties }) => Number(properties["level"]));
  levels.forEach((level, i) => {
    if (i > 0 && level > levels[i - 1]! + 1)
      found.push(`a heading ${level} after a heading ${levels[i - 1]!}`);
  });
  return found;
}

// WAI-ARIA 1.2 and its authoring practices, as Chromium exposes them.
test("every view names what takes the focus, and has its landmarks and headings in order", async ({
  page,
}) => {
  const book = await openDemo(page);
  for (const view of [
    "write",
    "links",
    "links/files",
    "links/codes",
    "links/addresses",
    "links/looks",
    "links/numbers",
    "checks",
    "checks/findings",
    "checks/health",
    "export",
  ]) {
    await page.goto(`/books/${book}/${view}`);
    await page.getByRole("main").getByRole("heading").first().waitFor();
    expect.soft(faults(await tree(page)), view).toEqual([]);
  }
});

test("the main work is told as it goes: tools, line, choices, card, and what was done", async ({ page }) => {
  await openOwnBook(page, "# Crossing\n\nAsk the tide office before you wade.\n\n## Low water\n\nWade.");
  const find = async (role: string, name: string | RegExp): Promise<TreeNode> => {
    let found: TreeNode | undefined;
    await expect(async () => {
      found = (await tree(page)).find(
        (node) =>
          node.role === role && (typeof name === "string" ? node.name === name : name.test(node.name)),
      );
      expect(found, `${role} ${String(name)}`).toBeDefined();
    }).toPass();
    return found!;
  };
  const writing = await find("textbox", "Text of the chapter");
  expect(writing.properties).toMatchObject({ multiline: true, editable: "richtext" });
  await find("toolbar", "Text tools");

  await selectWords(page, "tide office");
  await page.keyboard.press("Control+k");
  const line = await find("combobox", "Leads to");
  expect(line.properties).toMatchObject({ focused: true, expanded: true });
  await page.keyboard.type("low");
  const option = await find("option", /Low water/);
  expect(option.properties).toMatchObject({ selected: true });
  const typed = await find("combobox", "Leads to");
  expect(typed.properties).toHaveProperty("activedescendant");
  await page.keyboard.press("Control+a");
  await page.keyboard.type("javascript:x");
  await page.keyboard.press("Enter");
  const refused = await find("combobox", "Leads to");
  expect(refused.properties).toMatchObject({ invalid: "true" });
  await page.keyboard.press("Control+a");
  await page.keyboard.type("low water");
  await page.keyboard.press("Enter");

  const card = await find("button", /^Link “tide office” to Low water/);
  expect(card.properties).toMatchObject({ expanded: true });
  await find("link", "tide office");
  await saved(page);
  const order = (await tree(page)).map(({ role, name }) => `${role} ${name}`);
  const at = (what: RegExp): number => order.findIndex((one) => what.test(one));
  // As it is read: the way in the book, the chapters, the tools, the text, its cards.
  const read = [
    /^navigation Stages/,
    /^navigation Chapters/,
    /^toolbar Text tools/,
    /^textbox Text of/,
    /^group Margin/,
  ];
  const places = read.map(at);
  expect(places.every((place) => place >= 0)).toBe(true);
  expect(places).toEqual([...places].sort((a, b) => a - b));

  await text(page).getByRole("link", { name: "tide office" }).click();
  await page.getByRole("button", { name: "Link every mention" }).click();
  const tick = await find("checkbox", "Letter case has to match");
  expect(tick.properties).toMatchObject({ checked: "false", focusable: true });
});
