import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { createServer, type AddressInfo, type Server } from "node:net";
import { Settings } from "../settings.ts";
import { DriveService } from "./drive.service.ts";

/** It takes every question and answers none. */
let silent: Server;
let drive: DriveService;
beforeAll(async () => {
  silent = createServer();
  await new Promise<void>((resolve) => silent.listen(0, "127.0.0.1", resolve));
  const port = String((silent.address() as AddressInfo).port);
  drive = new DriveService(
    new Settings({ ...process.env, STANDIN_WEB_PORT: port, STANDIN_WEB_TLS_PORT: port }),
  );
});
afterAll(() => void silent.close());

test("a drive that takes the question and never answers is given up: who waits for it goes on", async () => {
  expect(await drive.audiences()).toEqual(new Map());
  await expect(drive.files()).rejects.toMatchObject({ code: "drive-away" });
});
