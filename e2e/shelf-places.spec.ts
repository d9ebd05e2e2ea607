import { AxeBuilder } from "@axe-core/playwright";
import { expect, openOwnBook, saved, selectWords, test } from "./fixtures";

const birds = "---\ntitle: Birds of the sound\n---\n\n# Waders at high water\n\nMany.";

test("words lead to a chapter of another book on the Shelf, whose file then travels along and is kept new", async ({
  page,
  quiet,
}) => {
  quiet.push("status of 422");
  const bookId = await openOwnBook(page, "# Walks\n\nSee the waders, then the gulls.");
  const { request } = page;
  const bring = await request.post("/api/books/import", {
    multipart: { manuscript: { name: "birds.md", mimeType: "text/markdown", buffer: Buffer.from(birds) } },
  });
  const { id: job } = (await bring.json()) as { id: string };
  await request.get(`/api/jobs/${job}/events`);
  const { book: other } = (await (await request.get(`/api/jobs/${job}/import`)).json()) as {
    book: { id: string };
  };
  const exported = async (): Promise<void> => {
    const begun = await request.post(`/api/books/${other.id}/exports`, { data: { format: "pdf" } });
    await request.get(`/api/jobs/${((await begun.json()) as { id: string }).id}/events`);
  };

  await selectWords(page, "the waders");
  await page.keyboard.press("Control+k");
  const line = page.getByRole("form", { name: "Link line" });
  await line.getByLabel("Leads to").fill("waders at");
  const choice = line.getByRole("option", { name: /Waders at high water.*Birds of the sound/ });
  await choice.click();
  await expect(line.getByText(/has no PDF or e-book yet/)).toBeVisible();
  await exported();
  await choice.click();
  await expect(page.getByText("birds-of-the-sound.pdf, “Waders at high water”").first()).toBeVisible();
  await saved(page);

  await request.post(`/api/books/${other.id}/chapters`, { data: { title: "Gulls" } });
  await exported();
  await page.goto(`/books/${bookId}/links/files`);
  await expect(page.getByText("That has gone out anew since.")).toBeVisible();
  await expect(page.getByText("1 link leads here")).toBeVisible();
  await page.waitForLoadState("networkidle");
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole("button", { name: "Take the newest file" }).click();
  await expect(page.getByText("That has gone out anew since.")).toBeHidden();
  await expect(page.getByRole("link", { name: "Birds of the sound" })).toBeVisible();
});
