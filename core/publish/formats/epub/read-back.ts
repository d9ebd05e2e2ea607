import { strFromU8, unzipSync } from "fflate";
import { SaxesParser, type SaxesTagPlain } from "saxes";
import { hasScheme } from "../../../proof/exported-folder.ts";
import { LandingTexts } from "../../../proof/landing-texts.ts";
import { whereInPage } from "../../../proof/where-in-page.ts";
import {
  foldBlanks,
  ProofError,
  type ExportedLink,
  type ExportReading,
  type FormatTraits,
} from "../../../proof/exported-link.ts";

interface ReadLink {
  href: string;
  where: string;
  text: string;
  title: string | null;
  file: string;
  apparatus: boolean;
}

const traits: FormatTraits = { isPaged: false, hasOwnNotes: false, hasTitle: true };

/**
 * Reads every link out of an EPUB's own bytes: unzips it, follows container and package document to the
 * reading order, and parses each XHTML file as XML. Knows nothing of the writer.
 * @throws ProofError where the container or one of its files cannot be read.
 */
export function readEpub(bytes: Uint8Array): ExportReading {
  const files = open(bytes);
  const packagePath = attributeIn(files, "META-INF/container.xml", "rootfile", "full-path");
  const { spine, others } = readSpine(files, packagePath);
  const ids = new Map<string, ReadonlyMap<string, string>>();
  const found: ReadLink[] = [];
  for (const file of spine) {
    const page = readPage(textOf(files, file), file);
    ids.set(file, page.ids);
    found.push(...page.links);
  }
  // Links name files as they lie beside the package document.
  const home = packagePath.lastIndexOf("/") + 1;
  const companions = [...others].flatMap((path): [string, Uint8Array][] =>
    files[path] ? [[path.slice(home), files[path]]] : [],
  );
  const links = found.map((link): ExportedLink => {
    const common = {
      text: foldBlanks(link.text),
      description: link.title,
      where: link.where,
      page: null,
      boxes: [],
      apparatus: link.apparatus,
    };
    if (hasScheme(link.href)) {
      return { ...common, destination: { kind: "address", address: link.href } };
    }
    const target = resolve(link.file, link.href);
    if (!ids.has(target.file) && others.has(target.file)) {
      return { ...common, destination: { kind: "file", path: target.file.slice(home) } };
    }
    const id = decodeURIComponent(target.fragment);
    const page = ids.get(target.file);
    const landing = id === "" && page ? "" : (page?.get(id) ?? null);
    return { ...common, destination: { kind: "place", target: id === "" ? target.file : id, landing } };
  });
  return { traits, pages: null, files: new Map(companions), pageOfPlace: new Map(), links };
}

function open(bytes: Uint8Array): Record<string, Uint8Array> {
  try {
    return unzipSync(bytes);
  } catch (error) {
    throw new ProofError("unreadable", `The e-book is not a readable container: ${(error as Error).message}`);
  }
}

function textOf(files: Record<string, Uint8Array>, path: string): string {
  const bytes = files[path];
  if (!bytes) throw new ProofError("unreadable", `The e-book has no file “${path}”.`);
  return strFromU8(bytes);
}

function parse(
  xml: string,
  path: string,
  onOpen: (tag: SaxesTagPlain) => void,
  more: { onText?: (text: string) => void; onClose?: (tag: SaxesTagPlain) => void } = {},
): void {
  const parser = new SaxesParser<{ xmlns: false }>({ xmlns: false, fileName: path } as { xmlns: false });
  parser.on("error", (error) => {
    throw new ProofError("unreadable", `“${path}” in the e-book is not well-formed: ${error.message}`);
  });
  parser.on("opentag", onOpen);
  parser.on("text", (text) => more.onText?.(text));
  parser.on("closetag", (tag) => more.onClose?.(tag));
  parser.write(xml).close();
}

function attributeIn(
  files: Record<string, Uint8Array>,
  path: string,
  tag: string,
  attribute: string,
): string {
  let value: string | null = null;
  parse(textOf(files, path), path, (open) => {
    if (open.name === tag) value ??= open.attributes[attribute] ?? null;
  });
  if (value === null) throw new ProofError("unreadable", `“${path}” in the e-book names no ${tag}.`);
  return value;
}

/** The pages in their order, and what else readers may be led to. */
function readSpine(
  files: Record<string, Uint8Array>,
  packagePath: string,
): { spine: string[]; others: Set<string> } {
  const items = new Map<string, { href: string; isPage: boolean }>();
  const spine: string[] = [];
  parse(textOf(files, packagePath), packagePath, (tag) => {
    if (tag.name === "item") {
      const isPage = tag.attributes["media-type"] === "application/xhtml+xml";
      items.set(tag.attributes["id"]!, { href: tag.attributes["href"]!, isPage });
    }
    if (tag.name === "itemref") spine.push(tag.attributes["idref"]!);
  });
  const placed = spine.map((id) => items.get(id) ?? { href: "", isPage: true });
  const paths = (isPage: boolean): string[] =>
    placed.filter((item) => item.isPage === isPage).map(({ href }) => resolve(packagePath, href).file);
  return { spine: paths(true), others: new Set(paths(false)) };
}

function readPage(xml: string, file: string): { ids: ReadonlyMap<string, string>; links: ReadLink[] } {
  const landings = new LandingTexts();
  const links: ReadLink[] = [];
  const open: ReadLink[] = [];
  let navDepth = 0;
  parse(
    xml,
    file,
    (tag) => {
      const { id, alt } = tag.attributes;
      const { href, title } = linkAttributes(tag);
      landings.open(tag.name, id ?? null);
      if (tag.name === "nav") navDepth++;
      if (tag.name === "img") for (const link of open) link.text += alt ?? "";
      if (tag.name === "br") for (const link of open) link.text += " ";
      if (tag.name !== "a" || href === undefined) return;
      const where = whereInPage(file, id ?? null, links.length + open.length + 1);
      open.push({ href, where, text: "", title: title ?? null, file, apparatus: navDepth > 0 });
    },
    {
      onText: (text) => {
        landings.text(text);
        for (const link of open) link.text += text;
      },
      onClose: (tag) => {
        landings.close();
        if (tag.name === "nav") navDepth--;
        if (tag.name === "a" && linkAttributes(tag).href !== undefined) links.push(open.pop()!);
      },
    },
  );
  return { ids: landings.found, links };
}

/** The attributes of an `a` of XHTML, or of SVG 1.1. */
function linkAttributes({ attributes }: SaxesTagPlain): {
  href: string | undefined;
  title: string | undefined;
} {
  return {
    href: attributes["href"] ?? attributes["xlink:href"],
    title: attributes["title"] ?? attributes["xlink:title"],
  };
}

function resolve(from: string, href: string): { file: string; fragment: string } {
  const url = new URL(href, `epub:///${from}`);
  return { file: decodeURIComponent(url.pathname.replace(/^\/+/, "")), fragment: url.hash.slice(1) };
}
