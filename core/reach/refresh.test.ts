import { expect, test } from "@jest/globals";
import { refreshTarget } from "./refresh.ts";

// WHATWG HTML, "shared declarative refresh steps" (from memory).
test.each([
  ["0; url=/now", "/now"],
  ["0;URL=/now", "/now"],
  ["  0 ; url = '/now' ", "/now"],
  ['5; url="/now" and more', "/now"],
  ["0; url='/now", "/now"],
  ["0, /now", "/now"],
  ["0 /now", "/now"],
  ["0.5; url=/now", "/now"],
  [".5; url=/now", "/now"],
  ["0; https://tides.example/a?url=b", "https://tides.example/a?url=b"],
  ["10; url=/now", "/now"],
])("%j leads on to %s", (content, target) => expect(refreshTarget(content)).toBe(target));

test.each(["", "0", "5;", "0; url=", "300", "11; url=/later", "600; url=/later", "url=/now", "x; url=/now"])(
  "%j leads nowhere, or not soon",
  (content) => expect(refreshTarget(content)).toBeNull(),
);
