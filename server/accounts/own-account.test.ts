import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { randomUUID } from "node:crypto";
import { unzipSync } from "fflate";
import { startTestServer, type Client, type TestServer } from "../test/test-server.ts";
import { AccountsService } from "./accounts.service.ts";

let server: TestServer;
beforeAll(
  async () =>
    void (server = await startTestServer({ VENNET_DEMO: "1", PUBLIC_ADDRESS: "https://vennet.test" })),
);
afterAll(() => server.close());

const password = "four words of the sea";
async function newAuthor(to = server): Promise<{ client: Client; email: string }> {
  const client = to.client();
  const email = `${randomUUID()}@authors.example`;
  const made = await client.call("POST", "/accounts", { name: "Pell Arrandine", email, password });
  expect(made.status).toBe(201);
  return { client, email };
}
const signIn = (email: string, given: string, to = server, headers = {}) =>
  to.client().call("POST", "/session", { email, password: given }, headers);

/** The secret of the newest link that was mailed to an address. */
async function mailedSecret(email: string): Promise<string> {
  for (;;) {
    const box = `http://127.0.0.1:${process.env["STANDIN_WEB_PORT"]}/.letters?to=${encodeURIComponent(email)}`;
    const [letter] = (await (await fetch(box)).json()) as { text: string }[];
    const [, secret] = /https:\/\/vennet\.test\/[\w-]+#([\w-]+)/.exec(letter?.text ?? "") ?? [];
    if (secret) return secret;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
}

// OWASP ASVS 4.0.3, 2.1.1, 2.1.2 and 2.1.7, from memory.
test.each([
  ["short", "nine char", /at least 10/],
  ["blanks", "            ", /one letter/],
  ["one letter", "aaaaaaaaaaaaaa", /one letter/],
  ["a common one", "Password123", /tried first/],
  ["another common one", "qwertyuiop", /tried first/],
  ["a common one with a number", "1234567890!", /tried first/],
  ["one's own name", "pell arrandine", /others know/],
  ["endless", "tide ".repeat(60), /at most 200/],
])("a password that is %s is refused with its reason", async (_what, given, reason) => {
  const request = { name: "Pell Arrandine", email: `${randomUUID()}@authors.example`, password: given };
  const { status, body } = await server.client().call("POST", "/accounts", request);
  expect([status, body]).toEqual([
    400,
    { code: "invalid", field: "password", message: expect.stringMatching(reason) },
  ]);
});

test("letters beyond ASCII count as one each, and tell addresses apart", async () => {
  const { email } = await newAuthor();
  const accented = email.replace("@", "é@");
  expect((await signIn(accented, password)).status).toBe(401);
  const other = { name: "Other", email: accented, password: "another tide altogether" };
  expect((await server.client().call("POST", "/accounts", other)).status).toBe(201);
  expect((await signIn(accented, other.password)).body["name"]).toBe("Other");
  expect((await signIn(email, other.password)).status).toBe(401);
});

describe("wrong passwords", () => {
  // OWASP ASVS 4.0.3, 2.2.1, from memory; RFC 6585, 4.
  test("bring pauses that grow, for that account from that address alone, whether it exists or not", async () => {
    const own = await startTestServer({ PROXIES: "1" });
    const { email } = await newAuthor(own);
    const from = (address: string) => ({ "x-forwarded-for": address });
    for (const name of [email, "nobody@authors.example"]) {
      for (let i = 0; i < 5; i++)
        expect((await signIn(name, "wrong tide", own, from("192.0.2.1"))).status).toBe(401);
      const paused = await signIn(name, password, own, from("192.0.2.1"));
      expect([paused.status, paused.body["code"]]).toEqual([429, "too-many-tries"]);
      expect(Number(paused.headers.get("retry-after"))).toBeGreaterThan(20);
    }
    expect((await signIn(email, password, own, from("192.0.2.2"))).status).toBe(201);
    await own.close();
  });

  test("that are tried at once are no more than one after the other", async () => {
    const { email } = await newAuthor();
    const answers = await Promise.all(Array.from({ length: 40 }, () => signIn(email, "wrong tide")));
    expect(answers.filter(({ status }) => status === 401).length).toBe(5);
    expect(answers.filter(({ status }) => status === 429).length).toBe(35);
  });

  test("of many accounts from one address end its tries", async () => {
    const own = await startTestServer({ PROXIES: "1" });
    const from = { "x-forwarded-for": "192.0.2.9" };
    let last = 401;
    for (let i = 0; i < 70 && last === 401; i++)
      last = (await signIn(`a${i}@authors.example`, "wrong tide", own, from)).status;
    expect(last).toBe(429);
    await own.close();
  });
});

test("accounts made from one address are limited", async () => {
  const own = await startTestServer({ SIGN_UPS_PER_HOUR: "2" });
  await newAuthor(own);
  await newAuthor(own);
  const third = await own
    .client()
    .call("POST", "/accounts", { name: "P", email: "third@authors.example", password });
  expect([third.status, third.body["code"]]).toEqual([429, "too-many-tries"]);
  await own.close();
});

test("an account is made by an invitation once, where the operator says so, and by nobody where it is closed", async () => {
  const own = await startTestServer({ REGISTRATION: "invitation" });
  const invitation = await own.app.get(AccountsService).invite();
  const make = (given?: string) =>
    own.client().call("POST", "/accounts", {
      name: "P",
      email: `${randomUUID()}@authors.example`,
      password,
      invitation: given,
    });
  expect((await make()).body["code"]).toBe("invitation");
  expect((await make("made-up")).body["code"]).toBe("invitation");
  expect((await make(invitation)).status).toBe(201);
  expect((await make(invitation)).body["code"]).toBe("invitation");
  expect((await own.client().call("GET", "/entry")).body).toEqual({ registration: "invitation", mail: true });
  await own.close();
  const closed = await startTestServer({ REGISTRATION: "closed" });
  const refused = await closed
    .client()
    .call("POST", "/accounts", { name: "P", email: "p@authors.example", password });
  expect([refused.status, refused.body["code"]]).toEqual([403, "registration"]);
  await closed.close();
});

describe("a forgotten password", () => {
  test("is replaced by a link that holds once; all sessions are ended by it", async () => {
    const { client, email } = await newAuthor();
    expect((await server.client().call("POST", "/password-links", { email })).status).toBe(202);
    const token = await mailedSecret(email);
    const use = (given: string) =>
      server.client().call("POST", "/password-links/use", { token, password: given });
    expect((await use("1234567890")).body["field"]).toBe("password");
    expect((await use("another tide altogether")).status).toBe(204);
    expect((await client.call("GET", "/session")).status).toBe(401);
    expect((await signIn(email, "another tide altogether")).status).toBe(201);
    expect((await use("a third tide altogether")).body["code"]).toBe("link-over");
  });
  test("is answered alike where nobody has the address", async () => {
    const answer = await server.client().call("POST", "/password-links", { email: "nobody@authors.example" });
    expect([answer.status, answer.body]).toEqual([202, null]);
  });
  test("is told where there is no mail server", async () => {
    const own = await startTestServer({ SMTP_URL: "" });
    const answer = await own.client().call("POST", "/password-links", { email: "nobody@authors.example" });
    expect([answer.status, answer.body["code"]]).toEqual([503, "no-mail"]);
    await own.close();
  });
});

describe("one's own account", () => {
  test("has its name and its password changed; the others of its sessions are ended by that", async () => {
    const { client, email } = await newAuthor();
    const elsewhere = server.client();
    await elsewhere.call("POST", "/session", { email, password });
    expect((await client.call("PATCH", "/account", { name: "Pell of the Sound" })).body["name"]).toBe(
      "Pell of the Sound",
    );
    const change = (current: string) =>
      client.call("PUT", "/account/password", { current, password: "another tide altogether" });
    expect((await change("not it at all")).body).toMatchObject({ code: "wrong-password", field: "current" });
    expect((await change(password)).status).toBe(204);
    expect((await client.call("GET", "/session")).status).toBe(200);
    expect((await elsewhere.call("GET", "/session")).status).toBe(401);
    expect((await signIn(email, password)).status).toBe(401);
  });

  test("gets a new address once that was confirmed from there", async () => {
    const { client, email } = await newAuthor();
    const next = `${randomUUID()}@authors.example`;
    expect((await client.call("POST", "/account/email", { email: next, current: password })).status).toBe(
      202,
    );
    expect((await client.call("GET", "/session")).body["email"]).toBe(email);
    const token = await mailedSecret(next);
    // A link for one thing does not hold for another.
    const misused = await server
      .client()
      .call("POST", "/password-links/use", { token, password: "another tide altogether" });
    expect(misused.body["code"]).toBe("link-over");
    expect((await server.client().call("POST", "/email-links/use", { token })).body).toEqual({ email: next });
    expect((await signIn(next, password)).status).toBe(201);
    expect((await signIn(email, password)).status).toBe(401);
  });

  test("lists where it is signed in, and ends each and all", async () => {
    const { client, email } = await newAuthor();
    const other = server.client();
    const third = server.client();
    for (const [one, device] of [
      [other, "Tern browser"],
      [third, "Gauge script"],
    ] as const)
      await one.call("POST", "/session", { email, password }, { "user-agent": device });
    const list = async () => (await client.call<any[]>("GET", "/account/sessions")).body;
    const sessions = await list();
    expect(sessions.map(({ device }) => device).sort()).toContain("Tern browser");
    expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1);
    const { id } = sessions.find(({ device }) => device === "Tern browser");
    // Nobody ends another's.
    const stranger = await newAuthor();
    expect((await stranger.client.call("DELETE", `/account/sessions/${id}`)).status).toBe(404);
    expect((await client.call("DELETE", `/account/sessions/${id}`)).status).toBe(204);
    expect((await other.call("GET", "/session")).status).toBe(401);
    expect((await client.call("DELETE", "/account/sessions")).status).toBe(204);
    expect((await third.call("GET", "/session")).status).toBe(401);
    expect(await list()).toHaveLength(1);
  });

  test("is downloaded whole, and deleted with all of its books", async () => {
    const { client, email } = await newAuthor();
    const { book } = (
      await client.bringIn("# Tides\n\n[office](https://tides.example/)", { title: "Walks: I/II" })
    ).body;
    const form = new FormData();
    form.set("file", new Blob(["Low water at nine"]), "plan.txt");
    await client.call("POST", `/books/${book.id}/files`, form);
    await client.exported(book.id, "epub");
    const answer = await fetch(`${server.url}/api/account/everything`, {
      headers: { cookie: client.cookie },
    });
    const files = unzipSync(new Uint8Array(await answer.arrayBuffer()));
    const text = (path: string): string => Buffer.from(files[path] ?? []).toString();
    expect(Object.keys(files).sort()).toEqual([
      "1 Walks- I-II/book.json",
      expect.stringMatching(/^1 Walks- I-II\/exports\/.*\.epub$/),
      "1 Walks- I-II/files/plan.txt",
      "1 Walks- I-II/text.md",
      "account.json",
    ]);
    expect(text("1 Walks- I-II/text.md")).toContain("[office](https://tides.example/)");
    expect(text("1 Walks- I-II/files/plan.txt")).toBe("Low water at nine");
    expect(JSON.parse(text("1 Walks- I-II/book.json")).chapters).toHaveLength(1);
    expect(text("account.json")).not.toContain("argon2");
    expect((await client.call("POST", "/account/deletion", { current: "not it at all" })).status).toBe(403);
    expect((await client.call("POST", "/account/deletion", { current: password })).status).toBe(204);
    expect((await client.call("GET", "/session")).status).toBe(401);
    expect((await signIn(email, password)).status).toBe(401);
  });

  test("of the demo is everybody's, and stays as it is", async () => {
    const client = server.client();
    await client.call("POST", "/session/demo");
    const answers = [
      await client.call("PUT", "/account/password", {
        current: "low-tide-at-nine",
        password: "another tide altogether",
      }),
      await client.call("POST", "/account/deletion", { current: "low-tide-at-nine" }),
    ];
    for (const { status, body } of answers) expect([status, body["code"]]).toEqual([403, "demo"]);
  });
});

test("an account has so many books and bytes as it may, and is told before", async () => {
  const own = await startTestServer({ QUOTA_BOOKS: "1", QUOTA_MB: "1" });
  const { client } = await newAuthor(own);
  const id = await client.write([]);
  expect((await client.call("POST", "/books", { title: "Second" })).body["code"]).toBe("quota");
  const form = new FormData();
  form.set("file", new Blob(["x".repeat(900_000)]), "a.txt");
  expect((await client.call("POST", `/books/${id}/files`, form)).status).toBe(201);
  const again = await client.call("POST", `/books/${id}/files`, form);
  expect([again.status, again.body]).toEqual([
    403,
    { code: "quota", message: expect.stringMatching(/of the 1 MB/) },
  ]);
  expect((await client.call("GET", "/account/usage")).body).toEqual({
    books: 1,
    mostBooks: 1,
    bytes: 900_000,
    mostBytes: 1024 * 1024,
  });
  await own.close();
});
