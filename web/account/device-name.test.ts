import { expect, test } from "@jest/globals";
import { deviceName } from "./device-name";

// What browsers call themselves, from memory.
test.each([
  [
    "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/131.0 Safari/537.36",
    "Chrome on Linux",
  ],
  [
    "Mozilla/5.0 (Windows NT 10.0) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/131.0 Safari/537.36 Edg/131.0",
    "Edge on Windows",
  ],
  [
    "Mozilla/5.0 (iPhone; CPU iPhone OS 18_1 like Mac OS X) AppleWebKit/605.1 Version/18.1 Mobile/15E148 Safari/604.1",
    "Safari on an iPhone",
  ],
  ["Mozilla/5.0 (Android 15; Mobile; rv:132.0) Gecko/132.0 Firefox/132.0", "Firefox on Android"],
  ["curl/8.5.0", "curl/8.5.0"],
  ["", "A program that gives no name"],
  ["x".repeat(300), "x".repeat(60)],
])("%s is %s", (userAgent, name) => {
  expect(deviceName(userAgent)).toBe(name);
});
