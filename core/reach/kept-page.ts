import { parse, serialize, type DefaultTreeAdapterTypes } from "parse5";
import { parseUrl } from "../destination/parse-url.ts";

type Node = DefaultTreeAdapterTypes.Node;
type Element = DefaultTreeAdapterTypes.Element;

/** Something that a page shows and that lies elsewhere. */
export interface Resource {
  /** Its media type without parameters. */
  type: string;
  bytes: Uint8Array;
}

/** What does something, asks for something, or shows something of elsewhere. */
const left = new Set(
  "script noscript iframe frame frameset object embed applet template base link meta portal dialog audio video source track".split(
    " ",
  ),
);
const leftAttributes =
  /^(?:on.*|srcset|sizes|ping|integrity|nonce|crossorigin|action|formaction|background|srcdoc|http-equiv|autofocus|target|download|data-.*)$/i;
const policy =
  "default-src 'none'; img-src data:; style-src 'unsafe-inline'; form-action 'none'; base-uri 'none'";

/** The addresses of the pictures and style sheets of a page, each once, style sheets first. */
export function resourcesOf(html: string, address: string): string[] {
  const sheets: string[] = [];
  const pictures: string[] = [];
  const page = parse(html);
  const base = baseOf(page, address);
  walk(page, (element) => {
    const at = isSheet(element)
      ? attribute(element, "href")
      : element.tagName === "img"
        ? attribute(element, "src")
        : null;
    const url = at === null ? null : parseUrl(at, base);
    if (url && /^https?:$/.test(url.protocol)) (isSheet(element) ? sheets : pictures).push(url.href);
  });
  return [...new Set([...sheets, ...pictures])];
}

/**
 * A page as one file that needs nothing else and does nothing by itself: no scripts, frames or forms; its pictures and style
 * sheets inside, as far as they are given; links lead where they led. What was left out leaves its words.
 * @param about where and when it was taken, told above it
 * @param resources pictures and style sheets by their addresses
 * @returns HTML
 */
export function keptPage(
  html: string,
  about: { address: string; keptAt: Date },
  resources: ReadonlyMap<string, Resource>,
): string {
  const page = parse(html);
  const base = baseOf(page, about.address);
  walk(page, (element) => {
    if (isSheet(element)) becomeStyle(element, resourceAt(element, "href", base, resources));
    else if (element.tagName === "style") setText(element, harmlessCss(textOf(element)));
    else if (element.tagName === "img") takeIn(element, resourceAt(element, "src", base, resources));
    else if (element.tagName === "form") rename(element, "div");
    cleanAttributes(element, base);
  });
  prune(page);
  const head = find(page, "head")!;
  const day = about.keptAt.toISOString().slice(0, 10);
  const note = `<div role="note" style="font:14px sans-serif;border-bottom:1px solid #888;padding:.5em 1em;margin:0 0 1em">Kept copy of <a href="${escaped(about.address)}">${escaped(about.address)}</a>, ${day}</div>`;
  const start = fragment(
    `<meta charset="utf-8"><meta http-equiv="Content-Security-Policy" content="${policy}"><meta name="viewport" content="width=device-width">`,
    "head",
  );
  head.childNodes.unshift(...start);
  find(page, "body")!.childNodes.unshift(...fragment(note, "body"));
  return serialize(page);
}

function isSheet(element: Element): boolean {
  return element.tagName === "link" && /(?:^|\s)stylesheet(?:\s|$)/i.test(attribute(element, "rel") ?? "");
}

function resourceAt(
  element: Element,
  name: string,
  base: string,
  resources: ReadonlyMap<string, Resource>,
): Resource | undefined {
  const at = attribute(element, name);
  if (at?.startsWith("data:image/")) return undefined;
  const url = at === null ? null : parseUrl(at, base);
  return url ? resources.get(url.href) : undefined;
}

function becomeStyle(element: Element, sheet: Resource | undefined): void {
  const media = attribute(element, "media");
  if (!sheet) return;
  rename(element, "style");
  element.attrs = media === null ? [] : [{ name: "media", value: media }];
  setText(element, harmlessCss(new TextDecoder().decode(sheet.bytes)));
}

/** Rules that ask for nothing: what they would fetch is left out, and no sign in them ends the element. */
function harmlessCss(css: string): string {
  return css
    .replace(/@import[^;]*;?/gi, "")
    .replace(/url\(\s*(?!["']?data:image\/)[^)]*\)/gi, "none")
    .replace(/<\/?/g, "");
}

function takeIn(element: Element, picture: Resource | undefined): void {
  const own = attribute(element, "src");
  if (own?.startsWith("data:image/")) return;
  element.attrs = element.attrs.filter(({ name }) => name !== "src");
  if (picture && /^image\/[\w.+-]+$/.test(picture.type))
    element.attrs.push({ name: "src", value: `data:${picture.type};base64,${base64(picture.bytes)}` });
}

function cleanAttributes(element: Element, base: string): void {
  element.attrs = element.attrs.flatMap((one) => {
    const { name, value } = one;
    if (leftAttributes.test(name)) return [];
    if (name === "style") return [{ ...one, value: harmlessCss(value) }];
    if (name === "href" || name === "xlink:href" || name === "cite") {
      if (value.startsWith("#")) return [one];
      const url = element.tagName === "a" || element.tagName === "area" ? parseUrl(value, base) : null;
      return url && /^(?:https?|mailto|tel):$/.test(url.protocol) ? [{ ...one, value: url.href }] : [];
    }
    if (name === "src" && element.tagName !== "img") return [];
    return [one];
  });
}

/** Takes out what does something; pictures of drawings may hold such things too. */
function prune(parent: Node): void {
  if (!("childNodes" in parent)) return;
  parent.childNodes = parent.childNodes.filter(
    (child) => !("tagName" in child && left.has(child.tagName)) && child.nodeName !== "#comment",
  );
  for (const child of parent.childNodes) prune(child);
}

function walk(parent: Node, visit: (element: Element) => void): void {
  if (!("childNodes" in parent)) return;
  for (const child of parent.childNodes) {
    if ("tagName" in child) visit(child);
    walk(child, visit);
  }
}

function baseOf(page: Node, address: string): string {
  let base: string | null = null;
  walk(page, (element) => {
    if (element.tagName === "base") base ??= attribute(element, "href");
  });
  return (base === null ? null : parseUrl(base, address)?.href) ?? address;
}

function find(page: Node, name: string): Element | null {
  let found: Element | null = null;
  walk(page, (element) => {
    if (element.tagName === name) found ??= element;
  });
  return found;
}

function attribute(element: Element, name: string): string | null {
  return element.attrs.find((one) => one.name === name)?.value ?? null;
}

function rename(element: Element, name: string): void {
  element.tagName = name;
  element.nodeName = name;
}

function textOf(element: Element): string {
  return element.childNodes.map((child) => ("value" in child ? child.value : "")).join("");
}

function setText(element: Element, value: string): void {
  element.childNodes = [
    { nodeName: "#text", value, parentNode: element } as DefaultTreeAdapterTypes.TextNode,
  ];
}

/** Parsed HTML as children for an element of this name. */
function fragment(html: string, within: "head" | "body"): DefaultTreeAdapterTypes.ChildNode[] {
  const page = parse(within === "head" ? `<head>${html}</head>` : `<body>${html}</body>`);
  return find(page, within)!.childNodes;
}

function escaped(text: string): string {
  return text.replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`);
}

const piece = 0x8000;

function base64(bytes: Uint8Array): string {
  let binary = "";
  for (let from = 0; from < bytes.length; from += piece)
    binary += String.fromCharCode(...bytes.subarray(from, from + piece));
  return btoa(binary);
}
