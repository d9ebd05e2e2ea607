/** Objects of a PDF by names, `{{name}}` where one leads to another, one of them `catalog`. */
export type NamedObjects = Readonly<Record<string, string>>;

/** The objects as a PDF, in an order, and the numbers that they have by it. */
export function pdfOfObjects(
  objects: NamedObjects,
  order: readonly string[] = Object.keys(objects),
): { bytes: Uint8Array; numberOf: (name: string) => number } {
  const numberOf = (name: string): number => order.indexOf(name) + 1;
  let text = "%PDF-1.7\n";
  let table = `xref\n0 ${order.length + 1}\n0000000000 65535 f \n`;
  for (const name of order) {
    table += `${String(text.length).padStart(10, "0")} 00000 n \n`;
    const body = objects[name]!.replace(/\{\{(\w+)\}\}/g, (_, to: string) => `${numberOf(to)} 0 R`);
    text += `${numberOf(name)} 0 obj\n${body}\nendobj\n`;
  }
  text += `${table}trailer\n<</Size ${order.length + 1} /Root ${numberOf("catalog")} 0 R>>\nstartxref\n${text.length}\n%%EOF`;
  return { bytes: Uint8Array.from(text, (sign) => sign.charCodeAt(0)), numberOf };
}

/** A stream of this content. @param more entries of its dictionary */
export function streamOf(content: string, more = ""): string {
  return `<</Length ${content.length} ${more}>>\nstream\n${content}\nendstream`;
}
