import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { namesIn, unpacked } from "./containers.ts";

/** A container that does not say in which encoding its names are (APPNOTE 6.3.3, 4.4.4, bit 11). */
function withoutEncoding(files: Record<string, Uint8Array>): Uint8Array {
  const bytes = zipSync(files);
  const view = new DataView(bytes.buffer);
  for (let at = 0; at + 46 <= bytes.length; at++)
    for (const [sign, flags] of [
      [0x04034b50, 6],
      [0x02014b50, 8],
    ] as const)
      if (view.getUint32(at, true) === sign)
        view.setUint16(at + flags, view.getUint16(at + flags, true) & ~0x800, true);
  return bytes;
}

test("names in UTF-8 are read as such where the container does not say so", () => {
  const bytes = withoutEncoding({ "Fährte/höhe.md": strToU8("a"), "plan.md": strToU8("b") });
  expect(namesIn(bytes)).toEqual(["Fährte/höhe.md", "plan.md"]);
  expect(Object.keys(unpacked(bytes))).toEqual(["Fährte/höhe.md", "plan.md"]);
});

test("folders that are parted as on Windows are folders", () => {
  const bytes = zipSync({ "tides\\low.md": strToU8("a") });
  expect(namesIn(bytes)).toEqual(["tides/low.md"]);
  expect(Object.keys(unpacked(bytes))).toEqual(["tides/low.md"]);
});
