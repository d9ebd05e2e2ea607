import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { create } from "fontkit";
import type { FontFace } from "@vennet/core/publish/formats/format";

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

/** All fonts of the typesetter. */
export function typesettingFonts(): Buffer[] {
  return [...textFiles, ...otherFiles].map(read);
}

/** The faces of the book's text, for an e-book that has them inside. */
export function textFonts(): FontFace[] {
  return faces.map((face, i) => ({ ...face, bytes: new Uint8Array(read(textFiles[i]!)) }));
}

/** The code points for which at least one of some fonts has a shape, from their own character maps. */
export function lettersWithShape(fonts: readonly Buffer[]): Set<number> {
  const letters = new Set<number>();
  for (const bytes of fonts) {
    const font = create(bytes);
    if (!("characterSet" in font)) throw new Error("A font file holds several fonts, which is not foreseen.");
    for (const codePoint of font.characterSet) letters.add(codePoint);
  }
  return letters;
}

function read(file: string): Buffer {
  const [name, ...rest] = file.split("/") as [string, ...string[]];
  return readFileSync(join(dirname(require.resolve(`@expo-google-fonts/${name}/package.json`)), ...rest));
}
