import { strFromU8, unzipSync } from "fflate";
import { SaxesParser } from "saxes";
import { fileBeside, hasScheme, openExport, type ExportedFolder } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  ProofError,
  type ExportedLink,
  type ExportReading,
  type FormatTraits,
} from "../../../proof/exported-link.ts";
import { LandingTexts } from "../../../proof/landing-texts.ts";

type Attributes = Record<string, string>;

const documentPath = "word/document.xml";

const traits: FormatTraits = { isPaged: false, hasOwnNotes: true, hasTitle: true };

/**
 * Reads every link out of a text document's own bytes (ECMA-376): the hyperlinks of its text and its footnotes,
 * their relationships and bookmarks. Knows nothing of the writer.
 * @throws ProofError where the document or a part of it cannot be read
 */
export function readDocx(bytes: Uint8Array): ExportReading {
  let folder: ExportedFolder = openExport(bytes);
  // The document is a container itself; alone, it was just opened as if it were the folder.
  if (folder.name === documentPath || folder.beside.has(documentPath))
    folder = { name: "", main: bytes, beside: new Map() };
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(folder.main);
  } catch (error) {
    throw new ProofError("unreadable", `The document cannot be unpacked: ${(error as Error).message}`);
  }
  const landings = new LandingTexts();
  const links = [
    ...readPart(files, "document", "the text", landings),
    ...readPart(files, "footnotes", "a footnote", landings),
  ];
  for (const link of links) {
    const { destination } = link;
    if (destination.kind === "place") destination.landing = landings.found.get(destination.target) ?? null;
    if (destination.kind === "address" && !hasScheme(destination.address))
      link.destination = fileBeside(destination.address);
  }
  return { traits, pages: null, files: folder.beside, pageOfPlace: new Map(), links };
}

function readPart(
  files: Record<string, Uint8Array>,
  part: string,
  name: string,
  landings: LandingTexts,
): ExportedLink[] {
  const targets = new Map<string, string>();
  parse(files, `word/_rels/${part}.xml.rels`, (tag, attributes) => {
    if (tag === "Relationship") targets.set(attributes["Id"]!, attributes["Target"]!);
  });
  const links: ExportedLink[] = [];
  let open: ExportedLink | null = null;
  const add = (text: string): void => {
    landings.text(text);
    if (open) open.text += text;
  };
  parse(
    files,
    `word/${part}.xml`,
    (tag, attributes) => {
      if (tag === "w:p") landings.open("p", null);
      if (tag === "w:bookmarkStart") {
        landings.open("span", attributes["w:name"]!);
        landings.close();
      }
      if (tag === "w:br") add(" ");
      if (tag === "wp:docPr" && open) open.text += attributes["descr"] ?? "";
      if (tag !== "w:hyperlink") return;
      const { "w:anchor": anchor, "r:id": id } = attributes;
      open = {
        destination:
          anchor !== undefined
            ? { kind: "place", target: anchor, landing: null }
            : { kind: "address", address: targets.get(id ?? "") ?? "" },
        text: "",
        description: attributes["w:tooltip"] ?? null,
        where: `${name}, link ${links.length + 1}`,
        page: null,
        boxes: [],
        apparatus: false,
      };
      links.push(open);
    },
    {
      onText: (text, tag) => {
        if (tag === "w:t") add(text);
      },
      onClose: (tag) => {
        if (tag === "w:p") landings.close();
        if (tag === "w:hyperlink") open = null;
      },
    },
  );
  for (const link of links) link.text = foldBlanks(link.text);
  return links;
}

function parse(
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
