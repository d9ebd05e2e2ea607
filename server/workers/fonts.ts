import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { create, type Font } from "fontkit";
import type { FontFace } from "@vennet/core/publish/formats/format";
import type { Shapes } from "@vennet/core/publish/formats/pdf/missing-letters";

const require = createRequire(import.meta.url);

const faces: Omit<FontFace, "bytes">[] = [
  { family: "Literata", weight: 400, italic: false },
  { family: "Literata", weight: 400, italic: true },
  { family: "Literata", weight: 700, italic: false },
  { family: "Literata", weight: 700, italic: true },
];
const textFiles = [
  "literata/400Regular/Literata_400Regular.ttf",
  "literata/400Regular_Italic/Literata_400Regular_Italic.ttf",
  "literata/700Bold/Literata_700Bold.ttf",
  "literata/700Bold_Italic/Literata_700Bold_Italic.ttf",
];
const otherFiles = [
  "jetbrains-mono/400Regular/JetBrainsMono_400Regular.ttf",
  "jetbrains-mono/700Bold/JetBrainsMono_700Bold.ttf",
  "noto-sans-symbols-2/400Regular/NotoSansSymbols2_400Regular.ttf",
  "noto-sans-math/400Regular/NotoSansMath_400Regular.ttf",
  "noto-emoji/400Regular/NotoEmoji_400Regular.ttf",
];
/** Where Debian's packages of fonts for all scripts lie (fonts-noto-core, fonts-noto-cjk). */
const [ofScripts, ofCjk] = ["/usr/share/fonts/truetype/noto", "/usr/share/fonts/opentype/noto"];

/** The fonts of the typesetter that ship with the application. */
export function typesettingFonts(): Buffer[] {
  return [...textFiles, ...otherFiles].map(read);
}

/** The folders of its other fonts, as far as they are there. */
export function fontFolders(): string[] {
  return [ofScripts, ofCjk].filter((folder) => existsSync(folder));
}

/** The faces of the book's text, for an e-book that has them inside. */
export function textFonts(): FontFace[] {
  return faces.map((face, i) => ({ ...face, bytes: new Uint8Array(read(textFiles[i]!)) }));
}

/** What the typesetter's fonts have shapes for, from their own character maps, each read when it is first asked for. */
export class FontShapes implements Shapes {
  private readonly fonts = new Map<string, Font | null>();

  has(family: string, codePoint: number): boolean {
    let font = this.fonts.get(family);
    if (font === undefined) this.fonts.set(family, (font = fontOf(family)));
    return font?.hasGlyphForCodePoint(codePoint) ?? false;
  }
}

/** The regular face of a family; null where it is not on this machine. */
function fontOf(family: string): Font | null {
  const name = family.replaceAll(" ", "");
  const ours = [...textFiles, ...otherFiles].find((file) => file.includes(`/${name}_`));
  if (ours) return create(read(ours)) as Font;
  const isCjk = family.includes("CJK");
  const file = isCjk
    ? join(ofCjk, `${name.replace(/CJK.*/, "CJK")}-Regular.ttc`)
    : join(ofScripts, `${name}-Regular.ttf`);
  if (!existsSync(file)) return null;
  const found = create(readFileSync(file));
  return "fonts" in found ? (found.fonts.find(({ familyName }) => familyName === family) ?? null) : found;
}

function read(file: string): Buffer {
  const [name, ...rest] = file.split("/") as [string, ...string[]];
  return readFileSync(join(dirname(require.resolve(`@expo-google-fonts/${name}/package.json`)), ...rest));
}
