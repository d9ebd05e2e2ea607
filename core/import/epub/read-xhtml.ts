import { decodePage } from "../text-encoding.ts";
import { readXml, type XmlElement } from "../xml-tree.ts";
import { withoutDocumentType, withoutNamedLetters } from "./named-letters.ts";

/**
 * The tree of a page of XHTML, or another part of an e-book, in whatever encoding it says it is.
 * @throws ImportError `format` where it is not well-formed
 */
export function readXhtml(path: string, bytes: Uint8Array): XmlElement {
  return readXml(path, withoutNamedLetters(withoutDocumentType(decodePage(bytes))));
}
