import type { DescribedLink } from "./typeset.ts";

/** A PDF was not as the typesetter writes it, so descriptions could not be put in. */
export class DescribeError extends Error {
  override readonly name = "DescribeError";
  constructor(
    readonly code: "trailer" | "marker",
    message: string,
  ) {
    super(message);
  }
}

/**
 * Puts each described link's true address and alternate description (ISO 14289-1, 7.18.5) in place of
 * its marker. It does so by an incremental update (ISO 32000, 7.5.6): the changed annotation objects and
 * a cross-reference section for them are appended, and nothing before them is touched.
 * @throws DescribeError where a marker or the trailer is not found.
 */
export function describePdf(pdf: Uint8Array, described: DescribedLink[]): Uint8Array {
  if (described.length === 0) return pdf;
  const text = latin1(pdf);
  const trailer = /trailer\s*<<([\s\S]*?)>>\s*startxref\s+(\d+)\s+%%EOF\s*$/.exec(text);
  if (!trailer)
    throw new DescribeError("trailer", "The typesetter's PDF has no trailer that can be continued.");
  const byMarker = new Map(described.map((link) => [link.marker, link]));
  const objects: { number: number; body: string }[] = [];
  const missing = new Set(byMarker.keys());
  for (const match of text.matchAll(/\/URI \((https:\/\/vennet\.invalid\/\d+)\)/g)) {
    const link = byMarker.get(match[1]!);
    if (!link) continue;
    const start = text.lastIndexOf(" 0 obj", match.index);
    const end = text.indexOf("endobj", match.index);
    const number = Number(/(\d+)$/.exec(text.slice(Math.max(0, start - 10), start))![1]);
    const body = text
      .slice(start, end)
      .replace(`/URI (${link.marker})`, () => `/URI ${literalString(link.address)}`)
      .replace(`/Contents (${link.marker})`, () => `/Contents ${textString(link.description)}`);
    objects.push({ number, body: `${number}${body}endobj\n` });
    missing.delete(link.marker);
  }
  if (missing.size > 0) {
    throw new DescribeError(
      "marker",
      `The typesetter's PDF lacks ${missing.size} of the links that have a description.`,
    );
  }
  objects.sort((a, b) => a.number - b.number);
  let offset = pdf.length + 1;
  let update = "\n";
  let table = "xref\n";
  for (const { number, body } of objects) {
    table += `${number} 1\n${String(offset).padStart(10, "0")} 00000 n \n`;
    update += body;
    offset += body.length;
  }
  update += `${table}trailer\n<<${trailer[1]!} /Prev ${trailer[2]!}\n>>\nstartxref\n${offset}\n%%EOF\n`;
  const out = new Uint8Array(pdf.length + update.length);
  out.set(pdf);
  // Everything in the update is Latin-1: literal strings are ASCII, text strings hexadecimal.
  for (let i = 0; i < update.length; i++) out[pdf.length + i] = update.charCodeAt(i);
  return out;
}

/** One character a byte, so that positions in the text are positions in the file. */
function latin1(bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return text;
}

/** A URI as a literal string (ISO 32000, 7.3.4.2); URIs are ASCII (12.6.4.8). */
function literalString(uri: string): string {
  const ascii = uri.replace(/[^\x21-\x7e]+/g, (run) => encodeURIComponent(run));
  return `(${ascii.replace(/[\\()]/g, "\\$&")})`;
}

/** Words as a UTF-16 text string (ISO 32000, 7.9.2.2), written in hexadecimal. */
function textString(words: string): string {
  let hex = "FEFF";
  for (let i = 0; i < words.length; i++) hex += words.charCodeAt(i).toString(16).padStart(4, "0");
  return `<${hex.toUpperCase()}>`;
}
