import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";

const literata = dirname(createRequire(import.meta.url).resolve("@expo-google-fonts/literata/package.json"));
const files = {
  regular: "400Regular/Literata_400Regular.ttf",
  italic: "400Regular_Italic/Literata_400Regular_Italic.ttf",
  bold: "700Bold/Literata_700Bold.ttf",
};

/**
 * A font that no part of the application knows: a face of Literata under a made-up name of as many letters.
 * @param fsType what its maker is to permit (OpenType 1.9, OS/2, two bytes at 8)
 */
export function causewayFont(
  face: keyof typeof files = "regular",
  { family = "Causeway", fsType = 0 }: { family?: string; fsType?: number } = {},
): Buffer {
  const bytes = Buffer.from(readFileSync(join(literata, files[face])));
  bytes.writeUInt16BE(fsType, tableAt(bytes, "OS/2").offset + 8);
  const { offset, length } = tableAt(bytes, "name");
  const names = bytes.subarray(offset, offset + length);
  for (const encoding of ["latin1", "utf16be"] as const) {
    const [from, to] = [encoded("Literata", encoding), encoded(family, encoding)];
    if (from.length !== to.length) throw new Error(`${family} is not as long as Literata`);
    for (let at = names.indexOf(from); at !== -1; at = names.indexOf(from, at + 1)) to.copy(names, at);
  }
  return bytes;
}

/** Where a table of a font lies (OpenType 1.9, table directory). */
function tableAt(bytes: Buffer, tag: string): { offset: number; length: number } {
  const count = bytes.readUInt16BE(4);
  for (let at = 12; at < 12 + count * 16; at += 16)
    if (bytes.toString("latin1", at, at + 4) === tag)
      return { offset: bytes.readUInt32BE(at + 8), length: bytes.readUInt32BE(at + 12) };
  throw new Error(`no table ${tag}`);
}

function encoded(text: string, encoding: "latin1" | "utf16be"): Buffer {
  return encoding === "latin1" ? Buffer.from(text, "latin1") : Buffer.from(text, "utf16le").swap16();
}
