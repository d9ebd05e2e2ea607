import { readFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { startServerProcess, type ServerProcess } from "../test/server-process.ts";

// The server as it is started is a bundle of what was compiled; the description goes by the names of its classes.

let server: ServerProcess;
beforeAll(async () => {
  server = await startServerProcess();
});
afterAll(() => server.stop());

test("the bundle describes the interface as the compiled server does", async () => {
  const { body } = await server.client().call("GET", "/openapi.json");
  const compiled = readFileSync(join(import.meta.dirname, "../openapi.json"), "utf8");
  expect(body).toEqual(JSON.parse(compiled));
});
