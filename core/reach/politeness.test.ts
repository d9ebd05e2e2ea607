import { describe, expect, test } from "@jest/globals";
import { judgeMailDomain, worstOf, type MailRecords } from "./mail-domain.ts";
import { outcome } from "./outcome.ts";
import { HostPace, isTransient, retryAfterMs, retryGapMs } from "./politeness.ts";

describe("a host's pace", () => {
  test("keeps the gap between questions; one that is hardly late does not delay those after it, a late one does", () => {
    const pace = new HostPace(100);
    const waits = (begun: number, ...asked: number[]): number[] => {
      pace.begin(begun);
      return asked.map((now) => pace.waitMs(now));
    };
    expect(pace.waitMs(1000)).toBe(0);
    expect(waits(1000, 1000, 1040, 1100, 1300)).toEqual([100, 60, 0, 0]);
    expect(waits(1104, 1104)).toEqual([96]);
    expect(waits(1260, 1260)).toEqual([100]);
    pace.widen(1000);
    pace.widen(50);
    expect(waits(1360, 1360)).toEqual([1000]);
  });

  test("rests as long as the host asks", () => {
    const pace = new HostPace(100);
    pace.pauseUntil(5000);
    pace.pauseUntil(3000);
    expect(pace.waitMs(10)).toBe(4990);
    pace.begin(5000);
    expect(pace.isIdle(5000)).toBe(false);
    expect(pace.isIdle(5100)).toBe(true);
  });
});

// RFC 9110, 10.2.3 (from memory): seconds, or an HTTP date.
test.each([
  ["120", 120_000],
  ["0", 0],
  ["Wed, 25 Nov 2026 10:00:30 GMT", 30_000],
  ["Wed, 25 Nov 2026 09:00:00 GMT", 0],
  ["soon", null],
  ["-5", null],
  ["1.5", null],
  [null, null],
])("Retry-After %j is %j milliseconds", (header, expected) => {
  expect(retryAfterMs(header, new Date("2026-11-25T10:00:00Z"))).toBe(expected);
});

test("the gaps between tries grow", () => {
  expect([1, 2, 3].map((tries) => retryGapMs(tries, 500))).toEqual([500, 2000, 8000]);
});

test("only what may pass by itself is tried again", () => {
  const status = (status: number) =>
    outcome("unsure", "status", [
      { method: "GET", address: "", status, location: null, type: null, failure: null, ms: 1 },
    ]);
  expect([408, 429, 500, 503].every((one) => isTransient(status(one)))).toBe(true);
  expect([304, 418, 501, 505].some((one) => isTransient(status(one)))).toBe(false);
  for (const code of ["timeout", "dropped", "refused", "name-server"] as const)
    expect(isTransient(outcome("unsure", code, []))).toBe(true);
  expect(isTransient(outcome("broken", "unknown-name", []))).toBe(false);
  expect(isTransient(outcome("unsure", "asked-to-wait", []))).toBe(false);
});

// RFC 5321, 5.1, and RFC 7505 (from memory).
test.each<[MailRecords, string]>([
  [{ exchangers: [{ preference: 10, name: "mx.tides.example" }], hasAddress: false }, "sound takes-mail"],
  [{ exchangers: [], hasAddress: true }, "sound mail-by-address"],
  [{ exchangers: [], hasAddress: false }, "broken no-exchanger"],
  [{ exchangers: [{ preference: 0, name: "" }], hasAddress: true }, "broken no-mail"],
  [{ failure: { code: "unknown-name" } }, "broken unknown-name"],
  [{ failure: { code: "name-server" } }, "unsure name-server"],
])("the records %j mean %s", (records, expected) => {
  const { state, code } = judgeMailDomain(records);
  expect(`${state} ${code}`).toBe(expected);
});

test("a message to several domains is as well as the worst of them", () => {
  const one = outcome("sound", "takes-mail", []);
  const worst = outcome("broken", "no-mail", []);
  expect(worstOf([one, worst, outcome("unsure", "name-server", [])])).toBe(worst);
});
