import { zipSync } from "fflate";

/** A container that does not say in which encoding its names are (APPNOTE 6.3.3, 4.4.4, bit 11). */
export function withoutEncoding(files: Record<string, Uint8Array>): Uint8Array {
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
