import { randomUUID } from "node:crypto";
import type { NestExpressApplication } from "@nestjs/platform-express";
import { makeApplication } from "../application.ts";
import { Settings } from "../settings.ts";

export interface Answer<T = Record<string, unknown>> {
  status: number;
  body: T;
  headers: Headers;
}

/** A script that talks to the server as any script would, with its own session. */
export class Client {
  cookie = "";
  constructor(readonly url: string) {}

  async call<T = Record<string, any>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const form = body instanceof FormData;
    const response = await fetch(`${this.url}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body && !form ? { "content-type": "application/json" } : {}),
        ...headers,
      },
      ...(body === undefined ? {} : { body: form ? body : JSON.stringify(body) }),
    });
    const cookie = response.headers.get("set-cookie");
    if (cookie) this.cookie = cookie.split(";")[0]!;
    const text = await response.text();
    return {
      status: response.status,
      body: (text ? JSON.parse(text) : null) as T,
      headers: response.headers,
    };
  }

  /** An answer that comes piece by piece. */
  stream(path: string): Promise<Response> {
    return fetch(`${this.url}/api${path}`, { headers: { cookie: this.cookie } });
  }

  async signUp(name = "Pell Arrandine"): Promise<this> {
    const email = `${randomUUID()}@authors.example`;
    await this.call("POST", "/accounts", { name, email, password: "a long password" });
    return this;
  }

  /** Brings a manuscript in, as a book or as chapters of one, and gives what it came to, or the answer that refused it. */
  async bringIn(
    markdown: string | Uint8Array,
    fields: Record<string, string> = {},
    pictures: Record<string, Uint8Array> = {},
    bookId: string | null = null,
  ): Promise<Answer<any>> {
    const form = new FormData();
    form.set("manuscript", new Blob([markdown as BlobPart]), "walks.md");
    for (const [name, value] of Object.entries(fields)) form.set(name, value);
    for (const [name, bytes] of Object.entries(pictures))
      form.append("pictures", new Blob([bytes as BlobPart]), name);
    const begun = await this.call<any>("POST", bookId ? `/books/${bookId}/import` : "/books/import", form);
    if (begun.status !== 202) return begun;
    const end = await this.jobEnd(begun.body);
    if (end.state !== "done") return { ...begun, status: 422, body: end };
    return this.call<any>("GET", `/jobs/${begun.body.id}/import`);
  }

  /** Makes a book of these chapters' documents. */
  async write(documents: unknown[], change: Record<string, unknown> = {}): Promise<string> {
    const { id } = (await this.call<any>("POST", "/books", { title: "The Causeways" })).body;
    const [first] = (await this.call<any>("GET", `/books/${id}/chapters`)).body;
    for (const document of documents) {
      const made = await this.call<any>("POST", `/books/${id}/chapters`, { title: "A chapter", document });
      if (made.status !== 201) throw new Error(made.body.message);
    }
    await this.call("DELETE", `/books/${id}/chapters/${first.id}`);
    const changed = await this.call<any>("PATCH", `/books/${id}`, change);
    if (changed.status !== 200) throw new Error(changed.body.message);
    return id;
  }

  /** Follows a job's events to its end. */
  async jobEnd(job: {
    id: string;
  }): Promise<{ state: string; message: string; done: number; total: number; events: number }> {
    const response = await this.stream(`/jobs/${job.id}/events`);
    let text = "";
    const decoder = new TextDecoder();
    const reader = response.body!.getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read())
      text += decoder.decode(part.value, { stream: true });
    const events = [...text.matchAll(/^data: (.*)$/gm)].map((match) => JSON.parse(match[1]!) as any);
    return { ...events.at(-1), events: events.length };
  }

  async exported(
    bookId: string,
    format: "pdf" | "epub" | "web" | "markdown" | "docx" | "odt",
    more: Record<string, unknown> = {},
  ): Promise<{ proof: any; bytes: Buffer; message: string }> {
    const job = await this.call<{ id: string }>("POST", `/books/${bookId}/exports`, { format, ...more });
    const end = await this.jobEnd(job.body);
    if (end.state !== "done") throw new Error(`${end.state}: ${end.message}`);
    const list = await this.call<{ id: string; format: string }[]>("GET", `/books/${bookId}/exports`);
    const { id } = list.body.find((one) => one.format === format)!;
    const proof = await this.call("GET", `/books/${bookId}/exports/${id}`);
    const file = await fetch(`${this.url}/api/books/${bookId}/exports/${id}/file`, {
      headers: { cookie: this.cookie },
    });
    return { proof: proof.body, bytes: Buffer.from(await file.arrayBuffer()), message: end.message };
  }
}

export interface TestServer {
  app: NestExpressApplication;
  url: string;
  client: () => Client;
  close: () => Promise<void>;
}

/** Starts the whole server on a free port, with the tests' database and stand-ins. */
export async function startTestServer(environment: Record<string, string> = {}): Promise<TestServer> {
  const settings = new Settings({
    ...process.env,
    LOG_LEVEL: "silent",
    // Longer than a busy machine lets a stand-in wait; one host of theirs never answers.
    REACH_TIMEOUT_MS: "6000",
    REACH_GAP_MS: "5",
    REACH_RETRY_MS: "100",
    DRIVE_TIMEOUT_MS: "60000",
    SIGN_UPS_PER_HOUR: "1000000",
    ...environment,
  });
  const app = await makeApplication(settings);
  await app.listen(0, "127.0.0.1");
  const url = await app.getUrl();
  return { app, url, client: () => new Client(url), close: () => app.close() };
}
