import { expect, test } from "./fixtures";

/** The most that the script before the first screen may weigh as it is sent. */
const mostBytes = 180_000;
const notWorthPacking = 1_024;

test("the first script is sent packed and is small, named files are kept for long, and others asked for anew", async ({
  page,
  quiet,
}) => {
  quiet.push("401");
  const scripts: { url: string; bytes: number; packed: string | undefined; kept: string | undefined }[] = [];
  page.on("response", (response) => {
    if (response.request().resourceType() !== "script") return;
    void response
      .request()
      .sizes()
      .then(({ responseBodySize: bytes }) => {
        const headers = response.headers();
        scripts.push({
          url: response.url(),
          bytes,
          packed: headers["content-encoding"],
          kept: headers["cache-control"],
        });
      });
  });
  const answer = await page.goto("/sign-in");
  await expect(page.getByRole("button", { name: "I have no account yet" })).toBeVisible();
  await page.waitForLoadState("networkidle");
  expect(answer!.headers()["cache-control"]).toContain("max-age=0");
  expect(scripts.length).toBeGreaterThan(0);
  for (const { url, kept } of scripts)
    expect([url, kept]).toEqual([url, expect.stringContaining("immutable")]);
  for (const { url, packed } of scripts.filter(({ bytes }) => bytes > notWorthPacking))
    expect([url, packed]).toEqual([url, expect.stringMatching(/gzip|br/)]);
  const first = scripts.filter(({ url }) => /\/index-[\w-]+\.js$/.test(url));
  expect(first).toHaveLength(1);
  expect(scripts.reduce((sum, { bytes }) => sum + bytes, 0)).toBeLessThan(mostBytes);
});
