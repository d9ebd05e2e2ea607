import { bytesOfData } from "../html/pictures-inside.ts";
import { decodePage } from "../text-encoding.ts";
import { elements, readXml, textOf, type XmlElement } from "../xml-tree.ts";

const beginning =
  /^\ufeff?\s*(?:<\?xml[^>]*>\s*)?(?:<!--(?:(?!-->)[^])*-->\s*)*<(\w+:)?document\b[^>]*\bmimetype\s*=\s*["']([^"']*)/;

/** What a file says that it is that has a whole document of OpenDocument in one text (1.3, part 3, 3.1.2); empty for any other. */
export function mimetypeOfFlat(bytes: Uint8Array): string {
  return beginning.exec(decodePage(bytes.subarray(0, 20_000)))?.[2] ?? "";
}

/**
 * The files that such a document would be packed in: its parts all stand in it, and its pictures as letters (3.1.2, 19.3).
 * @throws ImportError `format` where it is not well-formed
 */
export function filesOfFlat(bytes: Uint8Array): { root: XmlElement; files: Record<string, Uint8Array> } {
  const root = readXml("document", decodePage(bytes));
  const files: Record<string, Uint8Array> = {};
  const visit = (parent: XmlElement): void => {
    for (const child of elements(parent)) {
      const data = elements(child).find(({ name }) => name === "binary-data");
      if (!data) {
        visit(child);
        continue;
      }
      const path = `Pictures/${Object.keys(files).length + 1}`;
      // What is no picture is told where it would be shown.
      files[path] = bytesOfData(`data:;base64,${textOf(data)}`) ?? new Uint8Array();
      child.attributes["href"] = path;
    }
  };
  visit(root);
  return { root, files };
}

/** The text of such a document as far as its readers see it: without its styles, and the heads and feet of its pages. */
export function shownOfFlat(bytes: Uint8Array): string {
  const text = decodePage(bytes);
  const prefix = beginning.exec(text)?.[1] ?? "";
  const apart = "(meta|settings|scripts|styles|master-styles)";
  return text.replace(
    new RegExp(String.raw`<${prefix}${apart}\b(?:[^>]*[^/>])?>[^]*?</${prefix}\1\s*>`, "g"),
    "",
  );
}
