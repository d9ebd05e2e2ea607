import { expect, test } from "@jest/globals";
import { Settings } from "./settings.ts";

test("every setting has a default, and the server listens on loopback alone", () => {
  expect(new Settings({})).toMatchObject({ host: "127.0.0.1", port: 4600, reachLanes: 2, demo: false });
  expect(new Settings({ HOST: "0.0.0.0", PORT: "80" })).toMatchObject({ host: "0.0.0.0", port: 80 });
});

test.each([
  ["PORT", "four thousand"],
  ["PORT", "70000"],
  ["REACH_GAP_MS", ""],
  ["REACH_TIMEOUT_MS", "1.5"],
  ["REACH_LANES", "0"],
  ["REACH_PORTS", "80,x"],
  ["VENNET_DEMO", "yes"],
  ["LOG_LEVEL", "loud"],
])("%s cannot be “%s”, and the message says which it is and what it may be", (name, value) => {
  expect(() => new Settings({ [name]: value })).toThrow(
    expect.objectContaining({
      code: "setting",
      field: name,
      message: expect.stringMatching(/^[A-Z_]+ is “.*”; it has to be/),
    }),
  );
});
