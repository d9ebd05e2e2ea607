import { existsSync, readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { create, type Font } from "fontkit";
import type { FontFace } from "@vennet/core/manuscript/book-fonts";
import type { Shapes } from "@vennet/core/publish/formats/pdf/script-fonts";

const require = createRequire(import.meta.url);

// Literata is under the SIL Open Font License, which its OS/2 tables say too.
const literata = {
  family: "Literata",
  permission: "installable",
  canBeSubset: true,
  stretch: 100,
  mediaType: "font/ttf",
} as const;
const faces: Omit<FontFace, "bytes">[] = [
  { ...literata, weight: 400, italic: false },
  { ...literata, weight: 400, italic: true },
  { ...literata, weight: 700, italic: false },
  { ...literata, weight: 700, italic: true },
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

const usual = new Map<string, Font | null>();

/** What fonts have shapes for, from their own character maps, each read when it is first asked for. */
export class FontShapes implements Shapes {
  private readonly own = new Map<string, Font>();

  /** @param faces the author's own, which go before those of the typesetter */
  constructor(private readonly faces: readonly FontFace[]) {}

  has(family: string, codePoint: number): boolean {
    return this.find(family)?.hasGlyphForCodePoint(codePoint) ?? false;
  }

  private find(family: string): Font | null {
    let font = this.own.get(family) ?? usual.get(family);
    if (font !== undefined) return font;
    const face = plainest(this.faces.filter((one) => one.family === family));
    if (face) this.own.set(family, (font = create(Buffer.from(face.bytes)) as Font));
    else usual.set(family, (font = fontOf(family)));
    return font;
  }
}

/** The face of a family that says what letters it has: the upright one of the usual weight and width, or the next to it. */
function plainest(faces: readonly FontFace[]): FontFace | undefined {
  const distance = ({ weight, italic, stretch }: FontFace): number =>
    Math.abs(weight - 400) + Math.abs(stretch - 100) + (italic ? 1000 : 0);
  return [...faces].sort((a, b) => distance(a) - distance(b))[0];
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
