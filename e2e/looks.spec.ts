import { expect, openOwnBook, proofs, saved, test, text } from "./fixtures";

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
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("Saved: the book’s links look so now.")).toBeVisible();

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

test("one link has a look of its own, by itself, undone as any change, and carried by every export", async ({
  page,
}) => {
  const bookId = await openOwnBook(
    page,
    "# Walks\n\nSee [the office](https://tides.hesterley.example/) or [the ferry](https://ferry.hesterley.example/).\n",
  );
  const office = text(page).getByRole("link", { name: "the office" });
  const ferry = text(page).getByRole("link", { name: "the ferry" });
  const before = await ferry.evaluate((link) => getComputedStyle(link).color);
  await office.click();
  await page.getByLabel(/^Look/).selectOption("its own");
  const own = page.getByRole("group", { name: "Its own look" });
  await own.getByLabel("Colour").fill("#c04000");
  await own.getByLabel("Bold").check();
  await own.getByLabel(/^Underline/).selectOption("none");
  await expect(office).toHaveCSS("color", "rgb(192, 64, 0)");
  await expect(office).toHaveCSS("font-weight", "700");
  await expect(office).toHaveCSS("text-decoration-line", "none");
  await expect(ferry).toHaveCSS("color", before);

  // A faint one is told, and one press gives it the look of its kind.
  await own.getByLabel("Colour").fill("#cccccc");
  await expect(own.getByRole("status")).toContainText("too little: 4.5 is asked");
  await expect(page.getByText("The link’s own colour has a contrast of 1.61")).toBeVisible();
  await page.getByRole("button", { name: "Mend" }).click();
  await expect(office).toHaveCSS("color", before);
  await text(page).focus();
  await page.keyboard.press("Control+z");
  await expect(office).toHaveCSS("color", "rgb(204, 204, 204)");
  await saved(page);
  await page.reload();
  await expect(office).toHaveCSS("color", "rgb(204, 204, 204)");
  for (const proof of await proofs(page, bookId))
    expect(proof).toMatchObject({ intact: 2, total: 2, extra: 0 });
});
