import { expect, test } from "@jest/globals";
import { plainName } from "./plain-name.ts";

// What Windows forbids: “Naming Files, Paths, and Namespaces” of its documentation (from memory).
test.each([
  ["Walks: I/II", "Walks- I-II"],
  ["plan.txt", "plan.txt"],
  ["  ..plan. ", "plan"],
  ["con.pdf", "con-.pdf"],
  ["AUX", "AUX-"],
  ["console.pdf", "console.pdf"],
  ["map\u202efdp.exe", "map-fdp.exe"],
  ["...", "untitled"],
  [`${"a".repeat(250)}.pdf`, `${"a".repeat(60)}.pdf`],
  [`${"🌊".repeat(100)}.epub`, `${"🌊".repeat(30)}.epub`],
  [`Of tides. ${"a ".repeat(99)}`, "Of tides. a a a a a a a a a a a a a a a a a a a a a a a a a"],
])("%j is a file's name everywhere as %j", (name, plain) => {
  expect(plainName(name)).toBe(plain);
  expect(Buffer.byteLength(plain)).toBeLessThan(255);
});
