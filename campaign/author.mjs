import { randomUUID } from "node:crypto";

/** The limit is for an answer that never comes, on whatever machine. */
const longestMs = 10 * 60_000;

export const password = "four words of the sea";

/** An author who does what authors do, over the HTTP interface. */
export class Author {
  cookie = "";

  constructor(address) {
    this.address = address;
    this.email = `${randomUUID()}@authors.example`;
  }

  /** Asks, and gives the answer with its body read; status 0 where none came. */
  async call(method, path, body, { headers = {} } = {}) {
    const isPlain = body !== undefined && !(body instanceof FormData) && typeof body !== "string";
    try {
      const answer = await fetch(`${this.address}/api${path}`, {
        method,
        signal: AbortSignal.timeout(longestMs),
        headers: {
          cookie: this.cookie,
          ...(body !== undefined && !(body instanceof FormData)
            ? { "content-type": "application/json" }
            : {}),
          ...headers,
        },
        ...(body === undefined ? {} : { body: isPlain ? JSON.stringify(body) : body }),
      });
      const cookie = answer.headers.get("set-cookie");
      if (cookie) this.cookie = cookie.split(";")[0];
      const text = await answer.text();
      return { status: answer.status, text, body: parsed(text), headers: answer.headers };
    } catch (error) {
      return { status: 0, text: String(error), body: null, headers: new Headers(), error };
    }
  }

  async signUp() {
    const made = await this.call("POST", "/accounts", {
      name: "Pell Arrandine",
      email: this.email,
      password,
    });
    if (made.status !== 201) throw new Error(`No account was made: ${made.text}`);
    return this;
  }

  async signIn() {
    await this.call("POST", "/session", { email: this.email, password });
  }

  /** Begins to bring a manuscript in, and gives the answer. */
  beginImport(content, name = "walks.md") {
    const form = new FormData();
    form.set("manuscript", new Blob([content]), name);
    return this.call("POST", "/books/import", form);
  }

  /** Brings a manuscript in, and gives the book's id. */
  async bringIn(content) {
    const { body } = await this.beginImport(content);
    await this.jobEnd(body.id);
    return (await this.call("GET", `/jobs/${body.id}/import`)).body.book.id;
  }

  /** Waits until a job has ended, over ends of the server too. */
  async jobEnd(id, within = longestMs) {
    for (const until = Date.now() + within; Date.now() < until;) {
      const { status, body } = await this.call("GET", `/jobs/${id}`);
      if (status === 200 && ["done", "failed", "cancelled"].includes(body.state)) return body;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return { state: "never ended", message: "" };
  }
}

function parsed(text) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
