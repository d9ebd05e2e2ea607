import { once } from "node:events";
import { get, type IncomingMessage } from "node:http";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { getDataSourceToken } from "@nestjs/typeorm";
import type { DataSource } from "typeorm";
import { startTestServer, type TestServer } from "../test/test-server.ts";
import { demoSignIn } from "./accounts.service.ts";

let server: TestServer;
beforeAll(async () => void (server = await startTestServer({ VENNET_DEMO: "1" })));
afterAll(() => server.close());

const account = { name: "Orla", email: "orla@tindrum.example", password: "low tide at nine" };

describe("signing in", () => {
  test("an account is made, its session's cookie is closed to scripts and other sites", async () => {
    const client = server.client();
    const made = await client.call("POST", "/accounts", account);
    expect(made.status).toBe(201);
    expect(made.body).toEqual({ id: expect.any(String), name: "Orla", email: account.email });
    expect(made.headers.get("set-cookie")).toMatch(/HttpOnly/);
    expect(made.headers.get("set-cookie")).toMatch(/SameSite=Lax/);
    expect((await client.call("GET", "/session")).body["email"]).toBe(account.email);
  });

  test("neither password nor session token is in the database", async () => {
    const client = server.client();
    await client.call("POST", "/session", { email: account.email, password: account.password });
    const database = server.app.get<DataSource>(getDataSourceToken());
    const rows = JSON.stringify([
      await database.query("SELECT * FROM account"),
      await database.query("SELECT * FROM session"),
    ]);
    expect(rows).toContain("$argon2id$");
    expect(rows).not.toContain(account.password);
    expect(rows).not.toContain(client.cookie.split("=")[1]);
  });

  test("a wrong password and an unknown address are told alike", async () => {
    const wrong = await server
      .client()
      .call("POST", "/session", { ...account, name: undefined, password: "high tide" });
    const unknown = await server
      .client()
      .call("POST", "/session", { email: "nobody@tindrum.example", password: "x" });
    expect([wrong.status, wrong.body]).toEqual([401, { code: "sign-in", message: expect.any(String) }]);
    expect(unknown.body).toEqual(wrong.body);
  });

  test("signing out ends the session for good", async () => {
    const client = await server.client().signUp();
    const { cookie } = client;
    expect((await client.call("DELETE", "/session")).status).toBe(204);
    client.cookie = cookie;
    expect((await client.call("GET", "/session")).status).toBe(401);
  });

  test("the demo account works at one press, and by its password", async () => {
    expect((await server.client().call("POST", "/session/demo")).body["email"]).toBe(demoSignIn.email);
    expect((await server.client().call("POST", "/session", demoSignIn)).status).toBe(201);
  });

  test("an address is taken once", async () => {
    const again = await server
      .client()
      .call("POST", "/accounts", { ...account, email: "ORLA@tindrum.example" });
    expect([again.status, again.body["code"], again.body["field"]]).toEqual([409, "email-taken", "email"]);
  });
});

describe("who may do what", () => {
  test("another author's book answers 404, as if there were none", async () => {
    const orla = await server.client().signUp();
    const pell = await server.client().signUp();
    const { id } = (await orla.call("POST", "/books", { title: "Mine" })).body as { id: string };
    const chapter = (await orla.call<{ id: string }[]>("GET", `/books/${id}/chapters`)).body[0]!.id;
    const job = (await orla.call("POST", `/books/${id}/reach`)).body["id"] as string;
    for (const [method, path] of [
      ["GET", `/books/${id}`],
      ["PATCH", `/books/${id}`],
      ["DELETE", `/books/${id}`],
      ["GET", `/books/${id}/chapters`],
      ["GET", `/books/${id}/chapters/${chapter}`],
      ["DELETE", `/books/${id}/chapters/${chapter}`],
      ["GET", `/books/${id}/destinations`],
      ["POST", `/books/${id}/reach`],
      ["GET", `/books/${id}/exports`],
      ["GET", `/jobs/${job}`],
      ["GET", `/jobs/${job}/events`],
      ["DELETE", `/jobs/${job}`],
    ] as const) {
      const answer = await pell.call(method, path, method === "PATCH" ? {} : undefined);
      expect([method, path, answer.status, answer.body["code"]]).toEqual([method, path, 404, "not-found"]);
    }
    // A chapter is not reachable through a book of one's own either.
    const own = (await pell.call("POST", "/books", { title: "Hers" })).body["id"] as string;
    expect((await pell.call("GET", `/books/${own}/chapters/${chapter}`)).status).toBe(404);
    expect((await orla.call("GET", `/books/${id}`)).status).toBe(200);
  });

  test("a writing request from another site's page is refused", async () => {
    const client = await server.client().signUp();
    const write = (headers: Record<string, string>) => client.call("POST", "/books", { title: "T" }, headers);
    expect((await write({ origin: "https://evil.test" })).body["code"]).toBe("origin");
    expect((await write({ origin: "null" })).status).toBe(403);
    expect((await write({ "sec-fetch-site": "cross-site" })).status).toBe(403);
    // The same host without TLS is another origin (RFC 6454, 4).
    expect((await write({ origin: server.url.replace("http:", "https:") })).body["code"]).toBe("origin");
    expect((await write({ origin: server.url })).status).toBe(201);
    expect((await write({})).status).toBe(201);
  });
});

describe("a name that is led to this address", () => {
  const askAs = async (host: string, to = server): Promise<{ status: number; body: string }> => {
    const { port } = new URL(to.url);
    const asking = get({ host: "127.0.0.1", port, path: "/api/health", headers: { host } });
    const [answer] = (await once(asking, "response")) as [IncomingMessage];
    let body = "";
    for await (const piece of answer) body += String(piece);
    return { status: answer.statusCode!, body };
  };

  test("is refused, and so is no name at all; numbers, this machine and the names that are set are not", async () => {
    const named = await startTestServer({
      VENNET_HOSTS: "guide.hesterley.example, tides.test",
      PUBLIC_ADDRESS: "https://vennet.hesterley.example",
    });
    for (const host of ["evil.test", "localhost.evil.test", "127.0.0.1.evil.test", "a b", "@127.0.0.1"]) {
      const { status, body } = await askAs(host);
      expect([host, status, JSON.parse(body).code]).toEqual([host, 421, "host"]);
    }
    for (const host of ["localhost", "127.0.0.1:1", "[::1]", "192.0.2.7", "vennet.localhost"])
      expect([host, (await askAs(host)).status]).toEqual([host, 200]);
    for (const host of ["guide.hesterley.example", "TIDES.test.", "vennet.hesterley.example:443"])
      expect([host, (await askAs(host, named)).status]).toEqual([host, 200]);
    const client = await named.client().signUp();
    const write = (origin: string) => client.call("POST", "/books", { title: "T" }, { origin });
    expect((await write("https://vennet.hesterley.example")).status).toBe(201);
    expect((await write("http://vennet.hesterley.example")).status).toBe(403);
    await named.close();
  });
});

describe("errors have one shape", () => {
  test("a field that is wrong is named", async () => {
    const { status, body } = await server
      .client()
      .call("POST", "/accounts", { ...account, password: "short" });
    expect([status, body]).toEqual([
      400,
      { code: "invalid", message: "A password has at least 10 characters.", field: "password" },
    ]);
  });
  test("what is not there, and what cannot be read", async () => {
    const client = await server.client().signUp();
    expect((await client.call("GET", "/nothing")).body).toMatchObject({
      code: "not-found",
      message: expect.any(String),
    });
    const broken = await fetch(`${server.url}/api/session`, {
      method: "POST",
      body: "{",
      headers: { "content-type": "application/json" },
    });
    expect([broken.status, Object.keys((await broken.json()) as object)]).toEqual([400, ["code", "message"]]);
    expect((await client.call("POST", "/books", { title: "T", surprise: 1 })).status).toBe(400);
  });
  test("every answer has a request id, a policy without inline script, and no hint of the software", async () => {
    const { headers } = await fetch(`${server.url}/api/health`);
    expect(headers.get("x-request-id")).toMatch(/^[0-9a-f-]{36}$/);
    expect(headers.get("content-security-policy")).toMatch(/script-src 'self'(;|$)/);
    expect(headers.get("x-powered-by")).toBeNull();
  });
});

test("an address that is signed up several times at once gets one account, and the others are told so", async () => {
  const request = { name: "Orla", email: "twice@tindrum.example", password: "a long password" };
  const answers = await Promise.all(
    Array.from({ length: 10 }, () => server.client().call("POST", "/accounts", request)),
  );
  expect(answers.map(({ status }) => status).sort()).toEqual([201, ...Array(9).fill(409)]);
  expect(answers.find(({ status }) => status === 409)!.body).toMatchObject({
    code: "email-taken",
    field: "email",
  });
});

describe("a body", () => {
  const send = (path: string, body: string, cookie = ""): Promise<Response> =>
    fetch(`${server.url}/api${path}`, {
      method: "POST",
      body,
      headers: { "content-type": "application/json", cookie },
    });

  test("that is a list is refused, and of nobody signed in no more than a little is read", async () => {
    const list = await send("/session", JSON.stringify([0, 0]));
    expect([list.status, await list.json()]).toEqual([400, expect.objectContaining({ code: "invalid" })]);
    const numbers = `[${"0,".repeat(500_000)}0]`;
    for (const path of ["/session", "/accounts", "/books", "/books/none/links/edit"]) {
      const answer = await send(path, numbers);
      expect([path, answer.status, await answer.json()]).toEqual([
        path,
        413,
        { code: "too-large", message: "This is larger than 64 KB, which is more than is read here." },
      ]);
    }
  });

  test("that is deeper than any request, or any chapter, is refused in words, with its place in the text", async () => {
    const nested = (levels: number): string => `${'{"a":'.repeat(levels)}1${"}".repeat(levels)}`;
    const deep = await send("/session", nested(5_000));
    expect([deep.status, await deep.json()]).toEqual([400, expect.objectContaining({ code: "too-deep" })]);
    const author = await server.client().signUp();
    const { book } = (await author.bringIn("# T")).body;
    const words = '{"type":"paragraph","content":[{"type":"text","text":"Low water"}]}';
    const quotes = (levels: number): string =>
      `{"type":"doc","content":[{"type":"title","attrs":{"id":"t"}},${'{"type":"blockquote","content":['.repeat(levels)}${words}${"]}".repeat(levels)}]}`;
    const save = async (levels: number) =>
      (
        await send(`/books/${book.id}/chapters`, `{"title":"T","document":${quotes(levels)}}`, author.cookie)
      ).json();
    expect(await save(3_000)).toMatchObject({ code: "too-deep" });
    expect(await save(400)).toMatchObject({
      code: "too-deep",
      message: expect.stringContaining("“Low water”"),
    });
    expect(await save(40)).toMatchObject({ title: "" });
  });

  test("of a text is read whole of those who may write it", async () => {
    const author = await server.client().signUp();
    const { book } = (await author.bringIn("# T")).body;
    const words = "word ".repeat(100_000);
    const document = {
      type: "doc",
      content: [
        { type: "title", attrs: { id: "t1" }, content: [{ type: "text", text: "Long" }] },
        { type: "paragraph", content: [{ type: "text", text: words }] },
      ],
    };
    const { status } = await author.call("POST", `/books/${book.id}/chapters`, { title: "Long", document });
    expect(status).toBe(201);
  });
});

test("a cookie that is no text is no session, and answers are kept by nobody", async () => {
  const answer = await fetch(`${server.url}/api/session`, {
    headers: { cookie: `vennet_session=${encodeURIComponent('j:{"a":1}')}` },
  });
  expect(answer.status).toBe(401);
  expect(answer.headers.get("cache-control")).toBe("no-store");
});
