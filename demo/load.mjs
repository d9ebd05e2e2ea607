import { readFileSync } from "node:fs";
import { join } from "node:path";

/**
 * Brings the demo book in over the HTTP interface, if the demo account has no book yet: as any author's
 * script would.
 * @param {string} server the server's address
 * @returns {Promise<boolean>} whether it was brought in now
 */
export async function loadDemo(server) {
  const signedIn = await fetch(`${server}/api/session/demo`, { method: "POST" });
  const cookie = signedIn.headers.get("set-cookie").split(";")[0];
  const books = await (await fetch(`${server}/api/books`, { headers: { cookie } })).json();
  if (books.length > 0) return false;
  const folder = join(import.meta.dirname, "manuscript");
  const form = new FormData();
  const file = (path) => new Blob([readFileSync(join(folder, path))]);
  form.set("manuscript", file("hesterley-sound.md"), "hesterley-sound.md");
  form.append("pictures", file("pictures/monks-path.png"), "monks-path.png");
  form.set("title", "The Tidal Causeways of Hesterley Sound");
  const answer = await fetch(`${server}/api/books/import`, {
    method: "POST",
    headers: { cookie },
    body: form,
  });
  if (!answer.ok) throw new Error(`The demo book could not be brought in: ${(await answer.json()).message}`);
  return true;
}
