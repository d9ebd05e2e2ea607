import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { startDatabase } from "../launch/database.mjs";
import { freePort, Processes } from "../launch/processes.mjs";
import { startServer } from "../launch/services.mjs";
import { expect, openOwnBook, saved, test, text, vennet } from "./fixtures";

// A Vennet of its own, so that its database can be killed.
const processes = new Processes();
let folder: string;
let address: string;
let database: Awaited<ReturnType<typeof startDatabase>>;
let startAgain: () => Promise<void>;

test.beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), "vennet-e2e-away-"));
  const port = await freePort();
  database = await startDatabase(processes, folder, port);
  startAgain = async () => {
    database = await startDatabase(processes, folder, port);
  };
  const ownPort = String(await freePort());
  const { environment } = vennet();
  await startServer(processes, { ...environment, PORT: ownPort, DATABASE_URL: database.url });
  address = `http://127.0.0.1:${ownPort}`;
});
test.afterAll(async () => {
  await processes.endAll();
  rmSync(folder, { recursive: true, force: true });
});

const kill = async (): Promise<void> => {
  database.child.kill("SIGKILL");
  await database.exited;
};

test.use({ baseURL: async ({}, use) => use(address) });

test("while the database alone is away, what is written is kept, and saved by itself when it is back", async ({
  page,
  quiet,
}) => {
  quiet.push("Failed to load resource");
  const bookId = await openOwnBook(page, "# One\n\nFirst text.");
  const stored = async (): Promise<string> => {
    const [chapter] = (await (await page.request.get(`/api/books/${bookId}/chapters`)).json()) as {
      id: string;
    }[];
    return (await page.request.get(`/api/books/${bookId}/chapters/${chapter!.id}`)).text();
  };
  await text(page).locator("p").click();
  await page.keyboard.press("End");

  await kill();
  expect((await page.request.get(`/api/books/${bookId}`)).status()).toBe(503);
  await page.keyboard.type(" Written meanwhile.");
  await expect(page.getByText("Server away: kept in this browser")).toBeVisible();
  await page.keyboard.type(" And more.");

  await startAgain();
  await saved(page);
  expect(await stored()).toContain("First text. Written meanwhile. And more.");

  // A page that is opened while it is away has the text again when it is back.
  await page.keyboard.type(" Again.");
  await saved(page);
  await kill();
  await page.keyboard.type(" Alone.");
  await expect(page.getByText("Server away: kept in this browser")).toBeVisible();
  await page.reload();
  await expect(page.getByText("database does not answer").first()).toBeVisible();
  await startAgain();
  await page.reload();
  await expect(text(page)).toContainText("Again. Alone.");
  await saved(page);
  expect(await stored()).toContain("Again. Alone.");
});
