import { expect, openOwnBook, test, text, vennet } from "./fixtures";

const share = "https://drive.hesterley.example/s/refuge-r3";
const markdown = `# Refuges

See [the plan](${share}), [the former tables](https://old-tides.example/tables), and write to [the wardens](mailto:wardens@nomail.example).
`;
let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, markdown);
});

/** Makes something happen on the stand-in drive. */
async function cause(event: string, file = ""): Promise<void> {
  const { STANDIN_WEB_PORT } = vennet().environment;
  await fetch(`http://127.0.0.1:${STANDIN_WEB_PORT}/~/drive.hesterley.example/.events`, {
    method: "POST",
    body: new URLSearchParams({ event, share: file }),
    redirect: "manual",
  });
}

test("runs are remembered: what broke, since when, and the chart of all of them", async ({ page, quiet }) => {
  // The plan that is refused.
  quiet.push("422");
  await cause("reset");
  await page.goto(`/books/${bookId}/checks`);
  await page.getByRole("button", { name: "Check all" }).click();
  await expect(page.getByText("None newly broken")).toBeVisible();
  await cause("deleted", "refuge-r3");
  const plan = page.getByRole("article").filter({ hasText: share });
  await plan.getByRole("button", { name: "Check again" }).click();
  await expect(page.getByText("1 newly broken")).toBeVisible();
  await expect(plan).toContainText("Broken since");
  await plan.getByRole("button", { name: "History" }).click();
  const history = page.getByRole("region", { name: `History of ${share}` });
  await expect(history).toContainText("Last sound");
  await expect(history.getByRole("row")).toHaveCount(2);
  await cause("reset");

  await page.getByRole("link", { name: "Health" }).click();
  await expect(page.getByRole("figure", { name: "States of the destinations over 2 runs" })).toBeVisible();
  await expect(page.locator(".recharts-bar-rectangle path").first()).toBeVisible();
  await page.getByText("The same in numbers").click();
  await expect(page.getByRole("row").nth(1)).toContainText("1");

  await page.getByLabel("Check by itself").selectOption("every Monday");
  await page.getByLabel("Readers of the book").selectOption("Causeway wardens");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("The plan is kept.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Check by itself")).toHaveValue("0 3 * * 1");
  await page.getByLabel("Check by itself").selectOption("by a cron expression");
  await page.getByLabel("Minute, hour, day, month, day of the week").fill("*/5 * * * *");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("alert")).toContainText("at least an hour apart");

  const [report] = await Promise.all([
    page.waitForEvent("popup"),
    page.getByRole("link", { name: /^web page/ }).click(),
  ]);
  await expect(report.getByRole("heading", { name: "A destination is broken (2)" })).toBeVisible();
});

test("findings of a run are mended in the list and in the margin, and narrowed by filters", async ({
  page,
}) => {
  await cause("reset");
  await page.goto(`/books/${bookId}/checks`);
  await page.getByRole("button", { name: "Check all" }).click();
  await expect(page.getByText("None newly broken")).toBeVisible();
  await page.getByRole("link", { name: "Findings" }).click();
  const broken = page.getByRole("region", { name: "A destination is broken" });
  await expect(broken).toContainText("The domain says that it takes no mail at all.");
  const moved = page.getByRole("region", { name: "A destination has moved" });
  await expect(moved.getByRole("insertion")).toHaveText("https://tides.hesterley.example/tables");
  await page.getByLabel("Words or address").fill("former");
  await expect(broken).toHaveCount(0);
  await moved.getByRole("link", { name: "all links to old-tides.example" }).click();
  await expect(page.getByRole("row").filter({ hasText: "the former tables" })).toBeVisible();

  await page.goto(`/books/${bookId}/write`);
  await text(page).getByRole("link", { name: "the former tables" }).click();
  await expect(page.getByText("The page has moved for good").first()).toBeVisible();
  await page.getByRole("button", { name: "Mend", exact: true }).click();
  await expect(page.getByLabel("Leads to")).toHaveValue("https://tides.hesterley.example/tables");
});

test("the first answer is shown while others are still awaited, and no row moves until all have come", async ({
  page,
}) => {
  const { STANDIN_WEB_PORT: port } = vennet().environment;
  const standIn = (path: string) => fetch(`http://127.0.0.1:${port}${path}`);
  const slow = [1, 2, 3, 4].map((i) => `[slow ${i}](http://held-1.hesterley.test/${i})`).join(" ");
  const own = await openOwnBook(
    page,
    `# T\n\n${slow} and [the gauges](https://tides.hesterley.example/gauges).\n`,
  );
  await standIn("/.hold");
  try {
    await page.goto(`/books/${own}/checks`);
    const rows = page.getByRole("article");
    const order = (): Promise<string[]> => rows.locator("p.font-mono").allInnerTexts();
    await expect(rows).toHaveCount(5);
    const before = await order();
    await page.getByRole("button", { name: "Check all" }).click();
    const quick = rows.filter({ hasText: "/gauges" });
    await expect(quick).toContainText("Sound");
    // The others have not answered.
    await expect(page.getByRole("progressbar", { name: "Addresses checked" })).toBeVisible();
    expect(await order()).toEqual(before);
  } finally {
    await standIn("/.release");
  }
  await expect(page.getByText(/The last run checked 5/)).toBeVisible();
  await expect(page.getByRole("article").filter({ hasText: "Sound" })).toHaveCount(5);
});
