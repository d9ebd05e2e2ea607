import { expect, openOwnBook, proofs, test, text } from "./fixtures";

test("links take the look of their kind, on the page and in the exports, with WCAG's limits told as it is chosen", async ({
  page,
}) => {
  const bookId = await openOwnBook(
    page,
    "# Walks\n\nSee [the office](https://tides.hesterley.example/) or [write](mailto:a@causeways.example).\n",
  );
  await page.goto(`/books/${bookId}/links/looks`);
  const web = page.getByRole("group", { name: "Look of web links" });
  await expect(web.getByRole("status")).toContainText("on paper, enough");
  await web.getByLabel(/^Underline/).selectOption("none");
  await expect(web.getByRole("status")).toContainText("too little without an underline: 3 is asked");
  await web.getByLabel("Colour").fill("#c04000");
  await web.getByLabel("Bold").check();
  await expect(web.getByRole("status")).toContainText(/[345]\.\d\d beside the text, enough/);
  await page.getByRole("button", { name: "Take these looks" }).click();
  await expect(page.getByText("The book’s links look so now.")).toBeVisible();

  await page.getByRole("link", { name: "Write" }).click();
  const office = text(page).getByRole("link", { name: "the office" });
  await expect(office).toHaveCSS("color", "rgb(192, 64, 0)");
  await expect(office).toHaveCSS("text-decoration-line", "none");
  await expect(office).toHaveCSS("font-weight", "700");
  await expect(text(page).getByRole("link", { name: "write" })).toHaveCSS(
    "text-decoration-line",
    "underline",
  );
  // Links keep working whatever their look.
  for (const proof of await proofs(page, bookId))
    expect(proof).toMatchObject({ intact: 2, total: 2, extra: 0 });
});
