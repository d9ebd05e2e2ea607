import { readFile } from "node:fs/promises";
import { createRequire } from "node:module";
import decodeAvif, { init as startAvif } from "@jsquash/avif/decode.js";
import decodeWebp, { init as startWebp } from "@jsquash/webp/decode.js";
import { Resvg } from "@resvg/resvg-js";
import { pictureKind } from "@vennet/core/import/pictures";
import { pictureSize } from "@vennet/core/manuscript/picture-size";
import { encode } from "fast-png";

/** How wide and high a drawing becomes at most, in pixels: sharp on paper over the whole width of a page. */
const longestSide = 2_400;
/** Drawings that are no larger are signs among words, in pixels. */
const [highestBadge, largestIcon] = [32, 64];
/** So many pixels has the largest photograph that is taken apart. */
const mostPixels = 60_000_000;

const require = createRequire(import.meta.url);
const loaded = new Map<string, Promise<void>>();

/**
 * Draws a picture that not every reader shows (SVG, WebP, AVIF) as PNG.
 * @returns its bytes; null where they are no such picture, or cannot be read
 */
export async function drawPicture(bytes: Uint8Array): Promise<Uint8Array | null> {
  try {
    const { width, height } = pictureSize({ bytes });
    const kind = pictureKind(bytes);
    if (kind !== "svg" && width * height > mostPixels) return null;
    switch (kind) {
      case "svg":
        return drawSvg(new TextDecoder().decode(bytes));
      case "webp": {
        await start("@jsquash/webp/codec/dec/webp_dec.wasm", startWebp);
        return asPng(await decodeWebp(copyOf(bytes)));
      }
      case "avif": {
        await start("@jsquash/avif/codec/dec/avif_dec.wasm", startAvif);
        return asPng(await decodeAvif(copyOf(bytes)));
      }
      default:
        return null;
    }
  } catch {
    // A damaged picture is told by whoever wanted it.
    return null;
  }
}

/** A drawing, on nothing, with what is in its file alone: no other file and no address is looked up. */
function drawSvg(text: string): Uint8Array {
  const own = text.replace(
    /([\w:-]*href)\s*=\s*(?:"(?!\s*(?:#|data:))[^"]*"|'(?!\s*(?:#|data:))[^']*')/gi,
    "",
  );
  const { width, height } = new Resvg(own, { font: { loadSystemFonts: false } });
  // A sign among words has the size of those words: every format shows a picture by its pixels.
  const isSign = height <= highestBadge || Math.max(width, height) <= largestIcon;
  const scale = isSign ? 1 : Math.min(3, longestSide / width, longestSide / height);
  const drawing = new Resvg(own, {
    fitTo: { mode: "zoom", value: scale },
    font: { loadSystemFonts: true, defaultFontFamily: "Noto Sans" },
  });
  return drawing.render().asPng();
}

function asPng(image: { width: number; height: number; data: Uint8ClampedArray } | null): Uint8Array | null {
  if (!image) return null;
  const data = new Uint8Array(image.data.buffer, image.data.byteOffset, image.data.byteLength);
  return encode({ width: image.width, height: image.height, data, channels: 4 });
}

/** Starts a decoder once; it knows browsers, where its program is fetched and pictures have a class. */
function start(program: string, begin: (module: never) => Promise<unknown>): Promise<void> {
  Object.assign(globalThis, { ImageData: globalThis.ImageData ?? PlainImage });
  let started = loaded.get(program);
  if (!started) {
    started = readFile(require.resolve(program))
      .then((bytes) => WebAssembly.compile(bytes))
      .then((module) => begin(module as never))
      .then(() => undefined);
    loaded.set(program, started);
  }
  return started;
}

class PlainImage {
  constructor(
    readonly data: Uint8ClampedArray,
    readonly width: number,
    readonly height: number,
  ) {}
}

function copyOf(bytes: Uint8Array): ArrayBuffer {
  return new Uint8Array(bytes).buffer;
}
