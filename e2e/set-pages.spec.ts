import AxeBuilder from "@axe-core/playwright";
import { expect, openOwnBook, test, text } from "./fixtures";

const filler = "The stones lie bare for two hours on each side of low water. ".repeat(70);

test("the pages of the chapter stand beside its text, as it is now, at the page of the cursor", async ({
  page,
}) => {
  await openOwnBook(
    page,
    `# Tides\n\nAsk [the office](https://tides.hesterley.example/).\n\n${filler}\n\nThe last box is full.`,
  );
  await page.getByRole("button", { name: "Pages", exact: true }).click();
  const pages = page.getByRole("region", { name: "Pages beside the text" });
  await expect(pages.getByText("As the text is now")).toBeVisible();
  await expect(pages.getByText("Page 1 of 3")).toBeVisible();
  const office = pages.getByRole("button", { name: "the office (tides.hesterley.example)" });
  await expect(office).toBeVisible();

  // Where one writes is where one looks.
  await text(page).getByText("The last box is full.").click();
  await page.keyboard.press("End");
  await expect(pages.getByText("Page 3 of 3")).toBeVisible();
  await page.keyboard.type(" Knock before you enter.");
  await expect(pages.getByRole("region", { name: "The page" })).toContainText("Knock before you enter.");
  await expect(pages.getByTestId("landing")).toBeVisible();

  await pages.getByRole("button", { name: "Page before" }).click();
  await pages.getByRole("button", { name: "Page before" }).click();
  await office.click();
  await expect(pages.getByText("https://tides.hesterley.example/")).toBeVisible();
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map(({ id, nodes }) => [id, nodes[0]!.target])).toEqual([]);

  // The browser remembers that they are wanted.
  await page.reload();
  await expect(pages.getByText("As the text is now")).toBeVisible();
  await page.getByRole("button", { name: "Pages", exact: true }).click();
  await expect(pages).toBeHidden();
});
