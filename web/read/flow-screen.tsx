import { useEffect, useRef } from "react";
import { hrefOf, type OpenFlow } from "./open-flow";
import { putPage } from "./put-page";

/** What text that flows is read on. */
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
  /** The link of the page, counted from 0, that is looked for instead of the fragment. */
  link: number | null;
  /** Which screen of the page, from 0, or how far a web page is scrolled; what is looked for, where it is null. */
  screen: number | null;
}

/** A page that is laid out. */
export interface ShownScreen {
  /** What was looked for. */
  target: Element | null;
  body: Element;
  /** The page's own style sheets. */
  styles: string;
  /** Which of its screens is seen, from 0, or how far a web page is scrolled. */
  shown: number;
  /** How many screens it has, or the height of a web page. */
  screens: number;
}

const inset = 26;
const papers: Record<Light, [paper: string, ink: string]> = {
  day: ["#ffffff", "#1c1a17"],
  lamp: ["#f4ead6", "#33291c"],
  night: ["#16150f", "#e4dfd2"],
};

/** A page of an exported file: an e-book's set in screens of which one is seen, a web page's as one that scrolls. */
export function FlowScreen({
  file,
  device,
  light,
  size,
  outlined,
  at,
  onShown,
  onPress,
}: {
  file: OpenFlow;
  device: Device;
  light: Light;
  /** Of the letters, in percent. */
  size: number;
  outlined: boolean;
  at: ScreenState;
  onShown: (at: ScreenState, shown: ShownScreen) => void;
  onPress: (link: PressedLink) => void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const latest = useRef({ onShown, onPress });
  latest.current = { onShown, onPress };

  // The page is put into the frame's own empty document, where no script of it runs.
  useEffect(() => {
    const inside = frame.current?.contentDocument;
    if (!inside) return;
    const styles = putPage(inside, file, at.path);
    const own = inside.createElement("style");
    own.textContent =
      (file.inScreens ? screensOf(device, light, size) : "") + marks(outlined, light === "night");
    inside.head.append(own);
    inside.onclick = (event) => {
      const link = (event.target as Element).closest("a, area");
      if (!link) return;
      event.preventDefault();
      const href = hrefOf(link);
      if (href !== null) latest.current.onPress({ name: nameOf(link), href });
    };
    const lay = (): void => {
      const target = targetOf(inside, at);
      const tell = (shown: number, screens: number): void =>
        latest.current.onShown(at, { target, body: inside.body, styles, shown, screens });
      if (file.inScreens) layInScreens(inside, device, target, at.screen, tell);
      else layInWindow(inside, target, at.screen, tell);
      if (at.screen === null) target?.setAttribute("data-landed", "");
    };
    lay();
    // Pictures change the length of the page when they have come.
    const pictures = [...inside.images].filter((picture) => !picture.complete);
    void Promise.allSettled(pictures.map((picture) => picture.decode())).then(() => {
      if (pictures.length > 0) lay();
    });
  }, [file, at, device, light, size, outlined]);

  return (
    <iframe
      ref={frame}
      title={`The ${file.kind} on a ${device.name}`}
      sandbox="allow-same-origin"
      width={device.width}
      height={device.height}
      className={`mx-auto box-content block max-w-full border-ink bg-white ${
        file.inScreens ? "rounded-xl border-[10px]" : "border-2"
      } ${device.isGrey ? "grayscale" : ""}`}
    />
  );
}

function targetOf(inside: Document, { fragment, link }: ScreenState): Element | null {
  if (link !== null)
    return [...inside.querySelectorAll("a, area")].filter((one) => hrefOf(one) !== null)[link] ?? null;
  return fragment === "" ? null : inside.getElementById(fragment);
}

type Tell = (shown: number, screens: number) => void;

function layInScreens(
  inside: Document,
  { width }: Device,
  target: Element | null,
  screen: number | null,
  tell: Tell,
): void {
  const sheet = inside.documentElement;
  inside.body.style.width = "";
  const screens = Math.max(1, Math.ceil((inside.body.scrollWidth - inset) / width));
  // As wide as all screens, so that the last one has its margin too.
  inside.body.style.width = `${screens * width}px`;
  const landed = target ? Math.floor((target.getBoundingClientRect().left + sheet.scrollLeft) / width) : 0;
  const shown = Math.min(screens - 1, Math.max(0, screen ?? landed));
  sheet.scrollLeft = shown * width;
  tell(shown, screens);
  // Who goes from link to link by keys is taken to a whole screen.
  inside.onscroll = () => {
    const nearest = Math.round(sheet.scrollLeft / width);
    sheet.scrollLeft = nearest * width;
    tell(nearest, screens);
  };
}

function layInWindow(inside: Document, target: Element | null, scrolled: number | null, tell: Tell): void {
  const sheet = inside.documentElement;
  if (scrolled !== null) sheet.scrollTop = scrolled;
  else if (target) target.scrollIntoView();
  else sheet.scrollTop = 0;
  tell(sheet.scrollTop, sheet.scrollHeight);
  inside.onscroll = () => tell(sheet.scrollTop, sheet.scrollHeight);
}

function nameOf(link: Element): string {
  return (
    link.getAttribute("aria-label") ??
    link.getAttribute("title") ??
    (link.textContent?.trim() || link.querySelector("img")?.getAttribute("alt") || "A link")
  );
}

function screensOf({ width, height }: Device, light: Light, size: number): string {
  const [paper, ink] = papers[light];
  return `
html { height: 100%; overflow: hidden; background: ${paper}; color: ${ink}; font-size: ${size}%; }
body { box-sizing: border-box; margin: 0; height: ${height}px; padding: ${inset}px; column-width: ${width - 2 * inset}px; column-gap: ${2 * inset}px; column-fill: auto; overflow: visible; }
img, svg { max-height: ${height - 4 * inset}px; }`;
}

function marks(outlined: boolean, isNight: boolean): string {
  return `
${isNight ? "a { color: #92bcf2 !important; }" : ""}
${outlined ? "a { outline: 1.5px dashed #1d4f8f; outline-offset: 1px; }" : ""}
[data-landed] { box-shadow: -6px 0 0 #1d4f8f; }
a[data-landed] { box-shadow: none; outline: 2px solid #1d4f8f; outline-offset: 2px; }`;
}
