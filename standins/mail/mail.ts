import { escapeHtml, htmlPage, type Answer } from "../answers.ts";

/**
 * The window of a mail program, filled in as a `mailto:` address asks (given as `?open=`). It reads the
 * address by itself, so that it shows what a reader's program would. Nothing is ever sent.
 */
export const answerMail: Answer = (request, response, url) => {
  const address = url.searchParams.get("open") ?? "";
  const fields = readAddress(address);
  const row = (name: string): string =>
    `<tr><th scope="row">${name}</th><td>${escapeHtml((fields.get(name.toLowerCase()) ?? []).join(", "))}</td></tr>`;
  const body = (fields.get("body") ?? []).join("\n");
  htmlPage(
    response,
    request,
    "New message",
    `<table>${["To", "Cc", "Bcc", "Subject"].map(row).join("")}</table><pre>${escapeHtml(body)}</pre><p>The stand-in mail: nothing is sent.</p>`,
  );
};

function readAddress(address: string): Map<string, string[]> {
  const fields = new Map<string, string[]>();
  const [, to = "", query = ""] = /^mailto:([^?]*)\??(.*)$/is.exec(address) ?? [];
  for (const pair of [`to=${to}`, ...query.split("&")]) {
    const [name = "", ...value] = pair.split("=");
    const key = decodeURIComponent(name).toLowerCase();
    const isList = ["to", "cc", "bcc"].includes(key);
    const raw = value.join("=");
    const values = (isList ? raw.split(",") : [raw]).map(decodeURIComponent).filter(Boolean);
    if (key && values.length > 0) fields.set(key, [...(fields.get(key) ?? []), ...values]);
  }
  return fields;
}
