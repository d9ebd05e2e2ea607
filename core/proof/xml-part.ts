import { strFromU8 } from "fflate";
import { SaxesParser } from "saxes";
import { ProofError } from "./exported-link.ts";

type Attributes = Record<string, string>;

/**
 * Reads a part of a document in XML from its first tag to its last, by names with their prefixes.
 * @throws ProofError where it is not there, or not well-formed
 */
export function parsePart(
  files: Record<string, Uint8Array>,
  path: string,
  onOpen: (tag: string, attributes: Attributes) => void,
  more: { onText?: (text: string, tag: string) => void; onClose?: (tag: string) => void } = {},
): void {
  const bytes = files[path];
  if (!bytes) throw new ProofError("unreadable", `The document has no part “${path}”.`);
  const parser = new SaxesParser({ xmlns: false, fileName: path });
  const open: string[] = [];
  parser.on("error", (error) => {
    throw new ProofError("unreadable", `“${path}” in the document is not well-formed: ${error.message}`);
  });
  parser.on("opentag", ({ name, attributes }) => {
    open.push(name);
    onOpen(name, attributes as Attributes);
  });
  parser.on("text", (text) => more.onText?.(text, open.at(-1) ?? ""));
  parser.on("closetag", ({ name }) => {
    open.pop();
    more.onClose?.(name);
  });
  parser.write(strFromU8(bytes)).close();
}
