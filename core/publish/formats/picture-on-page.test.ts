import { expect, test } from "@jest/globals";
import { defaultLayout, textHeight, textWidth } from "../../manuscript/page-layout.ts";
import { sizeOnPage } from "./picture-on-page.ts";

/** A picture in PNG of a size, as far as its size is read from it (PNG 1.2, 11.2.2). */
function picture(width: number, height: number) {
  const bytes = new Uint8Array(33);
  bytes.set([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 13, 0x49, 0x48, 0x44, 0x52]);
  new DataView(bytes.buffer).setUint32(16, width);
  new DataView(bytes.buffer).setUint32(20, height);
  return { id: "p", mediaType: "image/png" as const, bytes };
}

const room = textWidth(defaultLayout);
const most = textHeight(defaultLayout);

test.each([
  ["as it is", picture(100, 50), null, { width: 100, height: 50 }],
  ["as wide as the text", picture(4 * room, room), null, { width: room, height: room / 4 }],
  ["as wide as its author wants it", picture(100, 50), 50, { width: room / 2, height: room / 4 }],
])("a picture is shown %s", (_, file, share, size) => {
  const { width, height } = sizeOnPage(file, share, defaultLayout);
  expect(width).toBeCloseTo(size.width, 0);
  expect(height).toBeCloseTo(size.height, 0);
});

test("a picture is no higher than a page, and keeps its form", () => {
  for (const share of [null, 100]) {
    const { width, height } = sizeOnPage(picture(1080, 2400), share, defaultLayout);
    expect(height).toBeLessThan(most);
    expect(height).toBeGreaterThan(most * 0.8);
    expect(height / width).toBeCloseTo(2400 / 1080, 5);
  }
});
