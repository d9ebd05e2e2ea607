/** The ids of the picture files that a chapter's JSON names, whether or not it is one: it is not read as a document. */
export function picturesInJson(json: unknown): string[] {
  const found = new Set<string>();
  const waiting: unknown[] = [json];
  while (waiting.length > 0) {
    const node = waiting.pop() as { type?: unknown; attrs?: { file?: unknown }; content?: unknown } | null;
    if (typeof node !== "object" || node === null) continue;
    const file = node.type === "picture" ? node.attrs?.file : null;
    if (typeof file === "string") found.add(file);
    if (Array.isArray(node.content)) for (const child of node.content) waiting.push(child);
  }
  return [...found];
}
