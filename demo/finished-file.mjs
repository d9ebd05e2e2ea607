import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";

// Writes the finished files with which an author can try working on some: little books of ours, a PDF and an e-book,
// exported by a running server, with addresses that are no links, links that nobody answers, and mentions that lead nowhere yet.
//   node demo/finished-file.mjs http://127.0.0.1:8080

const [server] = process.argv.slice(2);
let cookie = "";
const call = async (method, path, body) => {
  const isForm = body instanceof FormData;
  const answer = await fetch(`${server}/api${path}`, {
    method,
    headers: { cookie, ...(body && !isForm ? { "content-type": "application/json" } : {}) },
    ...(body ? { body: isForm ? body : JSON.stringify(body) } : {}),
  });
  cookie = answer.headers.get("set-cookie")?.split(";")[0] ?? cookie;
  if (!answer.ok) throw new Error(`${method} ${path}: ${await answer.text()}`);
  return answer;
};
const ended = async ({ id }) => (await call("GET", `/jobs/${id}/events`)).text();

const source = (name) => new Blob([readFileSync(join(import.meta.dirname, "finished", name))]);

const email = `setter-${Date.now()}@authors.example`;
await call("POST", "/accounts", { name: "Orla Tindrum", email, password: "set in type at night" });

for (const [name, title, format, pictures] of [
  ["huts-of-the-outer-sands", "Huts of the Outer Sands", "pdf", []],
  ["a-year-of-low-water", "A Year of Low Water", "epub", ["plover.svg"]],
]) {
  const form = new FormData();
  form.set("manuscript", source(`${name}.md`), `${name}.md`);
  for (const picture of pictures) form.append("pictures", source(picture), picture);
  form.set("title", title);
  const brought = await (await call("POST", "/books/import", form)).json();
  await ended(brought);
  const { book } = await (await call("GET", `/jobs/${brought.id}/import`)).json();
  await ended(await (await call("POST", `/books/${book.id}/exports`, { format })).json());
  const [{ id }] = await (await call("GET", `/books/${book.id}/exports`)).json();
  const file = await (await call("GET", `/books/${book.id}/exports/${id}/file`)).arrayBuffer();
  writeFileSync(join(import.meta.dirname, `../web/public/examples/${name}.${format}`), new Uint8Array(file));
}
