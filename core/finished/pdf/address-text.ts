/**
 * An address of a PDF, which has only signs of ASCII (ISO 32000-1, 12.6.4.7): where it has others all the same, their bytes
 * are taken as UTF-8, which programs write, and else as letters of Latin-1 (common practice).
 */
export function addressText(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("latin1").decode(bytes);
  }
}

/** The same of what pdf.js tells, each byte as a letter. */
export function addressOfBytes(told: string): string {
  const codes = [...told].map((letter) => letter.codePointAt(0)!);
  return codes.every((code) => code < 256) ? addressText(Uint8Array.from(codes)) : told;
}
