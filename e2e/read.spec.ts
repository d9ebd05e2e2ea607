import AxeBuilder from "@axe-core/playwright";
import { expect, openOwnBook, proofs, test } from "./fixtures";

const filler = "The stones lie bare for two hours on each side of low water. ".repeat(60);
const markdown = `# Tides

Ask [the office](https://tides.hesterley.example/notes "The tide office"), or go on to [the ways](#ways).

${filler}

# Ways

From here [back to the tides](#tides).
`;

test("the exported PDF is read as its readers will: jumps and back, and addresses told before they open", async ({
  page,
}) => {
  const bookId = await openOwnBook(page, markdown);
  await page.getByRole("link", { name: "Read", exact: true }).click();
  await expect(page.getByText("There is no PDF to read yet.")).toBeVisible();
  expect((await proofs(page, bookId))[0]).toMatchObject({ format: "pdf", intact: 3 });
  await page.goto(`/books/${bookId}/export`);
  await page.getByRole("link", { name: "Read", exact: true }).last().click();

  const number = page.getByLabel("Page", { exact: true });
  await expect(number).toHaveValue("1");
  await page
    .getByRole("navigation", { name: "Outline of the file" })
    .getByRole("button", { name: "Tides" })
    .click();
  await expect(number).toHaveValue("3");
  const sheet = page.getByRole("region", { name: "Page 3 of the file" });
  await expect(sheet).toContainText("Ask the office, or go on to the ways.");

  // Outside the file: the whole address first, and nothing is opened by itself.
  await sheet.getByRole("button", { name: "The tide office" }).click();
  const aside = page.getByRole("complementary", { name: "The link that was followed" });
  await expect(aside).toContainText("https://tides.hesterley.example/notes");
  const [opened] = await Promise.all([
    page.waitForEvent("popup"),
    aside.getByRole("link", { name: "Open in a new tab" }).click(),
  ]);
  await expect(opened.getByRole("heading", { name: "Hesterley Tide Office — notes" })).toBeVisible();
  await opened.close();

  // Inside: there at once, marked, and back to where it was.
  await sheet.getByRole("button", { name: "Ways" }).click();
  const landed = page.getByRole("region", { name: /Page [45] of the file/ });
  await expect(landed).toContainText("From here back to the tides.");
  await expect(page.getByTestId("landing")).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);
  await page.getByRole("button", { name: "Back", exact: true }).click();
  await expect(number).toHaveValue("3");
  await page.getByLabel("Outline the links").uncheck();
  await page.keyboard.press("Escape");
  await page.getByRole("region", { name: "Page 3 of the file" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(number).toHaveValue("4");
});
