import { dataAddress } from "@vennet/core/publish/data-address";
import { resolvePath, type OpenFlow } from "./open-flow";
import { pictureType } from "./picture-type";

/** Puts a page of the file into the frame, and gives its own style sheets. */
export function putPage(inside: Document, file: OpenFlow, path: string): string {
  if (inside.compatMode !== "CSS1Compat") {
    // An empty document is laid out as pages of old were, until it says that it is not one.
    inside.open();
    inside.write("<!doctype html><html><head></head><body></body></html>");
    inside.close();
  }
  const page = file.page(path);
  const body = page.getElementsByTagName("body")[0]!;
  inside.documentElement.lang = page.documentElement.getAttribute("lang") ?? "";
  inside.title = page.getElementsByTagName("title")[0]?.textContent ?? "";
  const styles = stylesOf(file, page, path);
  const style = inside.createElement("style");
  style.textContent = styles;
  inside.head.replaceChildren(style);
  inside.body.replaceChildren(...[...body.childNodes].map((node) => inside.importNode(node, true)));
  for (const picture of inside.querySelectorAll("img, image")) showPicture(picture, file, path);
  return styles;
}

function stylesOf(file: OpenFlow, page: Document, path: string): string {
  const linked = [...page.getElementsByTagName("link")]
    .filter((link) => link.getAttribute("rel") === "stylesheet")
    .map((link) => file.files.get(resolvePath(path, link.getAttribute("href") ?? "").path))
    .map((bytes) => (bytes ? new TextDecoder().decode(bytes) : ""));
  const own = [...page.querySelectorAll("head > style")].map((style) => style.textContent ?? "");
  return [...linked, ...own].map((styles) => withoutAsking(styles)).join("\n");
}

/** What names something that is not written into the style sheet itself. */
const asks = /url\((?!\s*["']?data:)/i;

/** Style sheets that ask for nothing from anywhere: where they are put, what they name is not. */
function withoutAsking(styles: string): string {
  return styles
    .replace(/@import[^;]*;/gi, "")
    .replace(/@font-face\s*\{[^}]*\}/gi, (face) => (asks.test(face) ? "" : face))
    .replace(new RegExp(asks.source + "[^)]*\\)", "gi"), "none");
}

/** The policy of the page lets pictures come from nowhere but the page itself, so they are written into it. */
function showPicture(picture: Element, file: OpenFlow, path: string): void {
  const attribute =
    picture.localName === "img" ? "src" : picture.hasAttribute("href") ? "href" : "xlink:href";
  const source = picture.getAttribute(attribute) ?? "";
  if (source.startsWith("data:")) return;
  const bytes = file.files.get(resolvePath(path, source).path);
  const type = pictureType(source);
  if (bytes && type) picture.setAttribute(attribute, dataAddress(type, bytes));
}
