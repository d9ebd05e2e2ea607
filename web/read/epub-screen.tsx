import { useEffect, useRef } from "react";
import { resolvePath, xmlOf, type OpenEpub } from "./open-epub";

/** A device on which e-books are read. */
export interface Device {
  name: string;
  /** Of its screen, in CSS px. */
  width: number;
  height: number;
  isGrey: boolean;
}

/** The light in which a page is read. */
export type Light = "day" | "lamp" | "night";

/** What a reader has pressed. */
export interface PressedLink {
  /** What a screen reader is told of it. */
  name: string;
  href: string;
}

export interface ScreenState {
  path: string;
  fragment: string;
  /** Which screen of the page, from 0; what the fragment stands on where it is null. */
  screen: number | null;
}

const inset = 26;
const papers: Record<Light, [paper: string, ink: string]> = {
  day: ["#ffffff", "#1c1a17"],
  lamp: ["#f4ead6", "#33291c"],
  night: ["#16150f", "#e4dfd2"],
};
const mediaTypes: Record<string, string> = {
  png: "image/png",
  jpg: "image/jpeg",
  gif: "image/gif",
  svg: "image/svg+xml",
};

/** One screen of an e-book's page, set in columns of which one is seen, as e-readers do. */
export function EpubScreen({
  epub,
  device,
  light,
  size,
  outlined,
  at,
  onLaidOut,
  onPress,
}: {
  epub: OpenEpub;
  device: Device;
  light: Light;
  /** Of the letters, in percent. */
  size: number;
  outlined: boolean;
  at: ScreenState;
  /** Tells how many screens the page has, and which one is shown. */
  onLaidOut: (screens: number, shown: number) => void;
  onPress: (link: PressedLink) => void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const latest = useRef({ onLaidOut, onPress });
  latest.current = { onLaidOut, onPress };
  const { path, fragment, screen } = at;

  // The page is put into the frame's own empty document, where no script of it runs.
  useEffect(() => {
    const inside = frame.current?.contentDocument;
    if (!inside) return;
    if (inside.compatMode !== "CSS1Compat") {
      // An empty document is laid out as pages of old were, until it says that it is not one.
      inside.open();
      inside.write("<!doctype html><html><head></head><body></body></html>");
      inside.close();
    }
    const page = xmlOf(epub.files, path);
    const body = page.getElementsByTagName("body")[0]!;
    inside.documentElement.lang = page.documentElement.getAttribute("lang") ?? "";
    inside.title = page.getElementsByTagName("title")[0]?.textContent ?? "";
    const style = inside.createElement("style");
    style.textContent = stylesOf(epub, page, path) + screenStyle(device, light, size, outlined);
    inside.head.replaceChildren(style);
    inside.body.replaceChildren(...[...body.childNodes].map((node) => inside.importNode(node, true)));
    for (const picture of inside.querySelectorAll("img, image")) showPicture(picture, epub, path);
    inside.onclick = (event) => {
      const link = (event.target as Element).closest("a");
      if (!link) return;
      event.preventDefault();
      const href = link.getAttribute("href") ?? link.getAttribute("xlink:href");
      if (href !== null) latest.current.onPress({ name: nameOf(link), href });
    };
    const lay = (): void => {
      const sheet = inside.documentElement;
      inside.body.style.width = "";
      const screens = Math.max(1, Math.ceil((inside.body.scrollWidth - inset) / device.width));
      // As wide as all screens, so that the last one has its margin too.
      inside.body.style.width = `${screens * device.width}px`;
      const target = fragment === "" ? null : inside.getElementById(fragment);
      const landed = target
        ? Math.floor((target.getBoundingClientRect().left + sheet.scrollLeft) / device.width)
        : 0;
      const shown = Math.min(screens - 1, Math.max(0, screen ?? landed));
      sheet.scrollLeft = shown * device.width;
      if (screen === null) target?.setAttribute("data-landed", "");
      latest.current.onLaidOut(screens, shown);
      // Who goes from link to link by keys is taken to a whole screen.
      inside.onscroll = () => {
        const nearest = Math.round(sheet.scrollLeft / device.width);
        sheet.scrollLeft = nearest * device.width;
        latest.current.onLaidOut(screens, nearest);
      };
    };
    lay();
    // Pictures change the length of the page when they have come.
    const pictures = [...inside.images].filter((picture) => !picture.complete);
    void Promise.allSettled(pictures.map((picture) => picture.decode())).then(() => {
      if (pictures.length > 0) lay();
    });
  }, [epub, path, fragment, screen, device, light, size, outlined]);

  return (
    <iframe
      ref={frame}
      title={`The e-book on a ${device.name}`}
      sandbox="allow-same-origin"
      width={device.width}
      height={device.height}
      className={`mx-auto box-content block rounded-xl border-[10px] border-ink bg-white ${device.isGrey ? "grayscale" : ""}`}
    />
  );
}

function nameOf(link: Element): string {
  return (
    link.getAttribute("aria-label") ??
    link.getAttribute("title") ??
    (link.textContent?.trim() || link.querySelector("img")?.getAttribute("alt") || "A link")
  );
}

function stylesOf(epub: OpenEpub, page: XMLDocument, path: string): string {
  return [...page.getElementsByTagName("link")]
    .filter((link) => link.getAttribute("rel") === "stylesheet")
    .map((link) => epub.files.get(resolvePath(path, link.getAttribute("href") ?? "").path))
    .map((bytes) => (bytes ? new TextDecoder().decode(bytes) : ""))
    .join("\n");
}

function screenStyle({ width, height }: Device, light: Light, size: number, outlined: boolean): string {
  const [paper, ink] = papers[light];
  return `
html { height: 100%; overflow: hidden; background: ${paper}; color: ${ink}; font-size: ${size}%; }
body { box-sizing: border-box; margin: 0; height: ${height}px; padding: ${inset}px; column-width: ${width - 2 * inset}px; column-gap: ${2 * inset}px; column-fill: auto; overflow: visible; }
img, svg { max-height: ${height - 4 * inset}px; }
${light === "night" ? "a { color: #92bcf2 !important; }" : ""}
${outlined ? "a { outline: 1.5px dashed #1d4f8f; outline-offset: 1px; }" : ""}
[data-landed] { box-shadow: -6px 0 0 #1d4f8f; }`;
}

/** The policy of the page lets pictures come from nowhere but the page itself, so they are written into it. */
function showPicture(picture: Element, epub: OpenEpub, path: string): void {
  const attribute =
    picture.localName === "img" ? "src" : picture.hasAttribute("href") ? "href" : "xlink:href";
  const source = picture.getAttribute(attribute) ?? "";
  const bytes = epub.files.get(resolvePath(path, source).path);
  const type = mediaTypes[source.split(".").at(-1)?.toLowerCase() ?? ""];
  if (!bytes || !type) return;
  let binary = "";
  for (let i = 0; i < bytes.length; i += 8192) binary += String.fromCharCode(...bytes.subarray(i, i + 8192));
  picture.setAttribute(attribute, `data:${type};base64,${btoa(binary)}`);
}
