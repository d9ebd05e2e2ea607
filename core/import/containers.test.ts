import { expect, test } from "@jest/globals";
import { strToU8, zipSync } from "fflate";
import { withoutEncoding } from "../test/without-encoding.ts";
import { namesIn, unpacked } from "./containers.ts";

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
