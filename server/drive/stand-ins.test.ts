import { describe, expect, test } from "@jest/globals";
import { emptyMessage, writeMailto, type MailMessage } from "@vennet/core/destination/mailto";
import fc from "fast-check";

const base = `http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}/~`;

/** What the stand-in mail opens with for an address; it reads the address by code of its own. */
async function opened(address: string): Promise<{ fields: Record<string, string>; body: string }> {
  const page = await (
    await fetch(`${base}/mail.hesterley.example/?open=${encodeURIComponent(address)}`)
  ).text();
  const plain = (html: string): string =>
    html.replace(/&#(\d+);/g, (_all, code: string) => String.fromCharCode(Number(code)));
  const fields = Object.fromEntries(
    [...page.matchAll(/<th scope="row">(\w+)<\/th><td>(.*?)<\/td>/gs)].map(([, name, value]) => [
      name!,
      plain(value!),
    ]),
  );
  return { fields, body: plain(/<pre>(.*)<\/pre>/s.exec(page)![1]!) };
}

describe("the stand-in mail", () => {
  // RFC 6068 section 6 (from memory).
  test("opens with what an address asks for", async () => {
    expect(await opened("mailto:joe@example.com?cc=bob@example.com&body=hello")).toEqual({
      fields: { To: "joe@example.com", Cc: "bob@example.com", Bcc: "", Subject: "" },
      body: "hello",
    });
    expect((await opened("mailto:gorby%25kremvax@example.com")).fields["To"]).toBe(
      "gorby%kremvax@example.com",
    );
  });

  test("shows a message that Vennet wrote as the author gave it", async () => {
    const address = fc
      .tuple(fc.stringMatching(/^[a-z0-9%&+.?/=#"-]{1,12}$/), fc.stringMatching(/^[a-z]{1,8}\.example$/))
      .map(([local, host]) => `${local}@${host}`);
    const words = fc.stringMatching(/^[\p{L}\p{N} &?=#%+,;:<>"'äöü-]{0,30}$/u);
    const message: fc.Arbitrary<MailMessage> = fc.record({
      to: fc.array(address, { minLength: 1, maxLength: 2 }),
      cc: fc.array(address, { maxLength: 2 }),
      bcc: fc.array(address, { maxLength: 1 }),
      subject: words,
      body: words,
      other: fc.constant([] as [string, string][]),
    });
    await fc.assert(
      fc.asyncProperty(message, async (given) => {
        const { fields, body } = await opened(writeMailto({ ...emptyMessage(), ...given }));
        expect(fields).toEqual({
          To: given.to.join(", "),
          Cc: given.cc.join(", "),
          Bcc: given.bcc.join(", "),
          Subject: given.subject,
        });
        expect(body).toBe(given.body);
      }),
      { numRuns: 60 },
    );
  });
});

describe("the stand-in drive", () => {
  const drive = `${base}/drive.hesterley.example`;
  const status = async (share: string) => (await fetch(`${drive}/s/${share}`, { redirect: "manual" })).status;
  const cause = (event: string, share = "") =>
    fetch(`${drive}/.events`, {
      method: "POST",
      body: new URLSearchParams({ event, share }),
      redirect: "manual",
    });

  test("opens each file for whom it is shared with, and tells the others apart", async () => {
    await cause("reset");
    expect(await status("refuge-r1")).toBe(200);
    expect(await status("refuge-r5")).toBe(401);
    expect(await status("rescue-log")).toBe(403);
    expect(await status("nothing")).toBe(404);
  });

  test("lets a tester move, narrow and delete a file, and begin again", async () => {
    await cause("moved", "refuge-r2");
    expect(await status("refuge-r2")).toBe(301);
    expect(await status("archive-refuge-r2")).toBe(200);
    await cause("narrowed", "refuge-r1");
    expect(await status("refuge-r1")).toBe(401);
    await cause("narrowed", "refuge-r1");
    expect(await status("refuge-r1")).toBe(403);
    await cause("deleted", "refuge-r4");
    expect(await status("refuge-r4")).toBe(404);
    await cause("deleted", "no such file");
    await cause("reset");
    for (const share of ["refuge-r1", "refuge-r2", "refuge-r4"]) expect(await status(share)).toBe(200);
  });

  test("names its files on a page with a press for each event", async () => {
    const page = await (await fetch(`${drive}/`)).text();
    for (const words of ["R3 refuge plan.pdf", "Causeway wardens", "Narrow access", "As at first"])
      expect(page).toContain(words);
    expect(await (await fetch(`${drive}/other`)).text()).toContain("no such page");
  });
});
