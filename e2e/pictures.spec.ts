import { join } from "node:path";
import { expect, openOwnBook, proofs, saved, test, text } from "./fixtures";

type Page = import("@playwright/test").Page;
const hotspots = (page: Page) => page.getByRole("region", { name: "Hotspots" });
const areas = (page: Page) =>
  hotspots(page).getByRole("list", { name: "Areas, the lowest first" }).getByRole("button");

let bookId: string;
test.beforeEach(async ({ page }) => {
  bookId = await openOwnBook(page, "# One\n\nalpha");
  await text(page).locator("p").click();
  await page
    .getByLabel("Picture file")
    .setInputFiles(join(import.meta.dirname, "../demo/manuscript/pictures/monks-path.png"));
  // Its text alternative is asked for at once.
  await page.getByLabel("Text alternative: what the picture shows").fill("Sketch map");
});

async function leadTo(page: Page, address: string, alt: string): Promise<void> {
  const line = page.getByRole("form", { name: "Link line" });
  await line.getByLabel("What it is").fill(alt);
  await line.getByLabel("Leads to").fill(address);
  await page.keyboard.press("Enter");
  await expect(line).toBeHidden();
}

test("a whole picture is a link by the same line and card, and travels", async ({ page }) => {
  await page.getByRole("button", { name: "Link the picture" }).click();
  const line = page.getByRole("form", { name: "Link line" });
  await expect(line.getByLabel("What it shows")).toHaveValue("Sketch map");
  await line.getByLabel("Leads to").fill("https://maps.hesterley.example/aldry");
  await page.keyboard.press("Enter");
  const card = page.getByRole("button", { name: "Link “Sketch map”" });
  await expect(card).toContainText("maps.hesterley.example");
  await expect(card.getByLabel("on a picture")).toBeVisible();
  await saved(page);
  expect(await proofs(page, bookId)).toEqual([
    { format: "pdf", intact: 1, total: 1, extra: 0 },
    { format: "epub", intact: 1, total: 1, extra: 0 },
  ]);
});

test("areas are drawn, moved by keys, copied, ordered, framed; covered ones are told; they travel", async ({
  page,
}) => {
  await page.getByRole("button", { name: /^Hotspots/ }).click();
  const canvas = hotspots(page).locator("canvas").first();
  await expect(canvas).toBeVisible();
  const box = (await canvas.boundingBox())!;
  const at = ([x, y]: readonly [number, number]): [number, number] => [
    box.x + box.width * x,
    box.y + box.height * y,
  ];
  for (const [tool, from, to, alt] of [
    ["Rectangle", [0.1, 0.2], [0.3, 0.5], "Tern Head"],
    ["Ellipse", [0.6, 0.2], [0.9, 0.7], "Aldry"],
  ] as const) {
    await hotspots(page).getByRole("radio", { name: tool }).click();
    await page.mouse.move(...at(from));
    await page.mouse.down();
    await page.mouse.move(...at(to), { steps: 4 });
    await page.mouse.up();
    await leadTo(page, `https://maps.hesterley.example/${tool}`, alt);
  }
  await hotspots(page).getByRole("radio", { name: "Polygon" }).click();
  for (const corner of [
    [0.4, 0.7],
    [0.5, 0.9],
    [0.35, 0.95],
  ] as const)
    await page.mouse.click(...at(corner));
  await page.keyboard.press("Enter");
  await leadTo(page, "https://maps.hesterley.example/Polygon", "Shoal");
  await expect(areas(page)).toHaveText([/1Tern Head/, /2Aldry/, /3Shoal/]);

  await areas(page).first().focus();
  const left = hotspots(page).getByLabel("Left");
  await expect(left).toHaveValue(/^(9\.9|10|10\.1)$/);
  const before = Number(await left.inputValue());
  await page.keyboard.press("Shift+ArrowRight");
  await expect(left).toHaveValue(String(Math.round((before + 5) * 10) / 10));
  await page.keyboard.press("d");
  await expect(areas(page)).toHaveCount(4);
  await expect(hotspots(page)).toContainText(/lies over \d+ % of this one/);
  await areas(page).last().focus();
  await page.keyboard.press("Delete");
  await expect(areas(page)).toHaveCount(3);
  await areas(page).first().focus();
  await page.keyboard.press("PageUp");
  await expect(areas(page)).toHaveText([/1Aldry/, /2Tern Head/, /3Shoal/]);
  await hotspots(page).getByRole("button", { name: "Undo" }).click();
  await expect(areas(page).first()).toHaveText(/1Tern Head/);
  await hotspots(page).getByLabel("Line").selectOption("dashed");
  await hotspots(page).getByLabel("Thickness").fill("3");
  await hotspots(page).getByRole("button", { name: "Done" }).click();

  await expect(text(page).locator(".picture polygon")).toHaveCount(3);
  await expect(text(page).locator(".picture-caption")).toHaveCount(3);
  await expect(page.getByRole("button", { name: "Link “Shoal”" })).toBeVisible();
  await text(page).locator(".picture polygon").nth(1).dispatchEvent("mousedown");
  await expect(page.getByRole("button", { name: "Link “Aldry”" })).toHaveAttribute("aria-expanded", "true");
  await saved(page);
  expect(await proofs(page, bookId)).toEqual([
    { format: "pdf", intact: 3, total: 3, extra: 0 },
    { format: "epub", intact: 3, total: 3, extra: 0 },
  ]);
  // Each change of an area is a thing of its own.
  await page.keyboard.press("Control+z");
  await expect(text(page).locator(".picture polygon")).toHaveCount(3);
  await expect(async () => {
    await page.keyboard.press("Control+z");
    await expect(text(page).locator(".picture polygon")).toHaveCount(0, { timeout: 100 });
  }).toPass();
});

test("an area that leads nowhere is not taken, and leaving keeps all as it was", async ({ page }) => {
  await page.getByRole("button", { name: /^Hotspots/ }).click();
  await hotspots(page).getByRole("button", { name: "Add in the middle" }).click();
  await page.getByRole("form", { name: "Link line" }).getByRole("button", { name: "Cancel" }).click();
  await hotspots(page).getByRole("button", { name: "Done" }).click();
  await expect(hotspots(page).getByRole("alert")).toContainText("leads nowhere yet");
  await hotspots(page).getByRole("button", { name: "Cancel" }).click();
  await expect(text(page).locator(".picture polygon")).toHaveCount(0);
});

test("areas keep their place when the picture is made smaller, or another takes its place", async ({
  page,
}) => {
  await page.getByRole("button", { name: /^Hotspots/ }).click();
  await hotspots(page).getByRole("button", { name: "Add in the middle" }).click();
  await leadTo(page, "https://maps.hesterley.example/m", "Middle");
  await hotspots(page).getByRole("button", { name: "Done" }).click();
  const isInPlace = async () => {
    const picture = await text(page).locator(".picture").boundingBox();
    const area = await text(page).locator(".picture polygon").boundingBox();
    if (!picture || !area) return false;
    // The line around the area is half outside of it.
    return Math.abs((area.x - picture.x) / picture.width - 0.4) < 0.02;
  };
  await expect.poll(isInPlace).toBe(true);
  await text(page)
    .locator(".picture img")
    .click({ position: { x: 4, y: 4 } });
  await page.getByLabel("Width").fill("50");
  await expect
    .poll(async () => (await text(page).locator(".picture").boundingBox())!.width)
    .toBeLessThan(300);
  await expect.poll(isInPlace).toBe(true);
  await page
    .getByLabel("Picture to put in its place")
    .setInputFiles(join(import.meta.dirname, "../docs/screenshots/shelf.png"));
  await expect(text(page).locator(".picture polygon")).toHaveCount(1);
  await expect.poll(isInPlace).toBe(true);
});
