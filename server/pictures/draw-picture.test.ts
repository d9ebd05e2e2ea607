import { describe, expect, test } from "@jest/globals";
import { pictureSize } from "@vennet/core/manuscript/picture-size";
import { decode } from "fast-png";
import { drawPicture } from "./draw-picture.ts";

// 24 by 16 pixels of one red, written by the encoders of libwebp and libaom.
const webp =
  "UklGRkQAAABXRUJQVlA4IDgAAAAQAwCdASoYABAAPpE4l0eloyIhMAgAsBIJQBdl0AAQNgAA/uy9j6+AKeqP/z0z+tv4/8iTsAAAAA==";
const avif =
  "AAAAIGZ0eXBhdmlmAAAAAGF2aWZtaWYxbWlhZk1BMUIAAADybWV0YQAAAAAAAAAoaGRscgAAAAAAAAAAcGljdAAAAAAAAAAAAAAAAGxpYmF2aWYAAAAADnBpdG0AAAAAAAEAAAAeaWxvYwAAAABEAAABAAEAAAABAAABGgAAAB8AAAAoaWluZgAAAAAAAQAAABppbmZlAgAAAAABAABhdjAxQ29sb3IAAAAAamlwcnAAAABLaXBjbwAAABRpc3BlAAAAAAAAABgAAAAQAAAAEHBpeGkAAAAAAwgICAAAAAxhdjFDgQAMAAAAABNjb2xybmNseAACAAIABoAAAAAXaXBtYQAAAAAAAAABAAEEAQKDBAAAACdtZGF0EgAKCRgQ7+wQICBoQDIQGYAQQQQEAAHgCG/gWsR+kA==";
const bytesOf = (base64: string): Uint8Array => new Uint8Array(Buffer.from(base64, "base64"));
const svgOf = (inside: string, size = 'viewBox="0 0 100 50"'): Uint8Array =>
  new TextEncoder().encode(
    `<?xml version="1.0"?><!-- a map --><svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size}>${inside}</svg>`,
  );

/** The colour of the pixel in the middle. */
async function middleOf(bytes: Uint8Array): Promise<number[]> {
  const { width, height, data, channels } = decode((await drawPicture(bytes))!);
  const at = (Math.floor(height / 2) * width + Math.floor(width / 2)) * channels;
  return [...data.slice(at, at + channels)];
}

describe("pictures that not every reader shows are drawn", () => {
  test.each([
    ["WebP", webp],
    ["AVIF", avif],
  ])("%s at its own size, in its own colours", async (_, base64) => {
    const drawn = (await drawPicture(bytesOf(base64)))!;
    expect(pictureSize({ bytes: drawn })).toEqual({ width: 24, height: 16 });
    const [red, green, blue] = await middleOf(bytesOf(base64));
    expect(Math.abs(red! - 200) + Math.abs(green! - 40) + Math.abs(blue! - 40)).toBeLessThan(12);
  });

  test("SVG three times as large as it says, and no larger than paper needs", async () => {
    const sizeOf = async (bytes: Uint8Array) => pictureSize({ bytes: (await drawPicture(bytes))! });
    expect(await sizeOf(svgOf('<rect width="100" height="50" fill="#c82828"/>'))).toEqual({
      width: 300,
      height: 150,
    });
    expect(await sizeOf(svgOf("", 'viewBox="0 0 90000 45000"'))).toEqual({ width: 2400, height: 1200 });
    // Signs among words, as icons and badges are.
    expect(await sizeOf(svgOf("", 'viewBox="0 0 48 48"'))).toEqual({ width: 48, height: 48 });
    expect(await sizeOf(svgOf("", 'viewBox="0 0 120 20"'))).toEqual({ width: 120, height: 20 });
    expect(await middleOf(svgOf('<rect width="100" height="50" fill="#c82828"/>'))).toEqual([
      200, 40, 40, 255,
    ]);
  });

  test("SVG with what is in it alone: no script runs, no other file or address is looked up", async () => {
    const other = `file://${process.cwd()}/docs/screenshots/shelf.png`;
    for (const image of [
      `<image width="100" height="50" xlink:href="${other}"/>`,
      `<image width="100" height="50" href='${process.cwd()}/docs/screenshots/shelf.png'/>`,
      '<script>fill()</script><use href="https://maps.hesterley.example/map.svg#a"/>',
    ])
      expect((await middleOf(svgOf(image)))[3]).toBe(0);
  });

  test("and what is damaged, cut off or none is told as such", async () => {
    for (const bytes of [
      bytesOf(webp).slice(0, 30),
      bytesOf(avif).slice(0, 280),
      svgOf("<rect"),
      new TextEncoder().encode("<svg"),
      new Uint8Array(0),
      new TextEncoder().encode("# Walks"),
    ])
      expect(await drawPicture(bytes)).toBeNull();
  });
});
