import { expect, test } from "@jest/globals";
import { spawn } from "node:child_process";
import { once } from "node:events";
import { createServer, type AddressInfo } from "node:net";
import { join } from "node:path";
import { Client } from "../test/test-server.ts";

test("the log is JSON, one line a request with its id, and no secret is in it", async () => {
  const probe = createServer().listen(0, "127.0.0.1");
  await once(probe, "listening");
  const port = String((probe.address() as AddressInfo).port);
  probe.close();
  const server = spawn(process.execPath, [join(import.meta.dirname, "../dist/main.js")], {
    env: { ...process.env, NODE_OPTIONS: "", PORT: port, LOG_LEVEL: "debug", VENNET_DEMO: "1" },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  let text = "";
  server.stdout!.on("data", (data: Buffer) => (text += data.toString()));
  await once(server, "message");
  const client = new Client(`http://127.0.0.1:${port}`);
  const password = "a very secret tide";
  await client.call("POST", "/accounts", { name: "Orla", email: `log-${port}@tindrum.example`, password });
  const { headers } = await client.call("GET", "/books");
  await client.call("POST", "/session", {
    email: `log-${port}@tindrum.example`,
    password: "wrong but secret",
  });
  server.kill("SIGTERM");
  await once(server, "close");

  const lines = text
    .trim()
    .split("\n")
    .map((line) => JSON.parse(line) as { req?: { id: string; url: string }; res?: { status: number } });
  const asked = lines.find((line) => line.req?.url === "/api/books")!;
  expect(asked).toMatchObject({
    req: { id: headers.get("x-request-id"), method: "GET" },
    res: { status: 200 },
  });
  expect(lines.filter((line) => line.req).length).toBe(3);
  for (const secret of [password, "wrong but secret", client.cookie.split("=")[1]!, "vennet_session"])
    expect(text).not.toContain(secret);
});
