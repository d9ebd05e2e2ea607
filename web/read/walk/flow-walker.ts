import { partsOfPath } from "@vennet/core/proof/companion-path";
import { hasScheme } from "@vennet/core/proof/exported-folder";
import { whereInPage } from "@vennet/core/proof/where-in-page";
import type { PressedLink, ScreenState, ShownScreen } from "../flow-screen";
import { hrefOf, type OpenFlow } from "../open-flow";
import { miniature, wordsAt } from "./miniature";
import type { Shown } from "./shown";
import type { FileLink, Landed, Walker } from "./walker";

/** What a press on a link does: the reader goes to a place, or asks about an address or a file. */
export type Pressed = { goesTo: ScreenState } | { asks: string };

/** What a robot presses on the reader of flowing text. */
export interface PressedFlowReader {
  go: (to: ScreenState) => void;
  press: (link: PressedLink) => Pressed;
  back: () => void;
  stay: () => void;
}

interface FlowLink extends FileLink {
  path: string;
  /** Which link of its page it is, from 0. */
  at: number;
  href: string;
}

/** Names what a reader of flowing text shows. */
export function screenKey({ path, fragment, link }: Pick<ScreenState, "path" | "fragment" | "link">): string {
  return JSON.stringify([path, fragment, link]);
}

/** Drives the reader of e-books and web pages. */
export class FlowWalker implements Walker {
  private hasJumped = false;
  private view: ShownScreen | null = null;

  constructor(
    private readonly file: OpenFlow,
    private readonly reader: { current: PressedFlowReader },
    private readonly shown: Shown<ShownScreen>,
  ) {}

  links(): Promise<FlowLink[]> {
    const all = this.file.pages.flatMap(({ path }) => {
      const links = [...this.file.page(path).querySelectorAll("a, area")].filter(
        (link) => hrefOf(link) !== null,
      );
      return links.map((link, at): FlowLink => {
        const name = path === "" ? "the page" : path;
        const where = whereInPage(name, link.getAttribute("id"), at + 1);
        return {
          where,
          on: shortName(path),
          words: (link.getAttribute("alt") ?? link.textContent ?? "").trim(),
          path,
          at,
          href: hrefOf(link)!,
        };
      });
    });
    return Promise.resolve(all);
  }

  async show(link: FileLink): Promise<string | null> {
    const { path, at } = link as FlowLink;
    const state: ScreenState = { path, fragment: "", link: at, screen: null };
    this.reader.current.go(state);
    this.view = await this.shown.of(screenKey(state));
    return miniature(this.view);
  }

  async follow(link: FileLink): Promise<Landed> {
    const { href, words } = link as FlowLink;
    const missed = this.view?.target ? whatTakesPress(this.view.target) : null;
    this.hasJumped = false;
    if (missed !== null) return { at: "missed", what: missed };
    const pressed = this.reader.current.press({ name: words, href });
    this.hasJumped = "goesTo" in pressed;
    if ("asks" in pressed) {
      const { asks } = pressed;
      if (hasScheme(asks)) return { at: "address", address: asks };
      const isThere = this.file.files.has(partsOfPath(asks).file);
      return { at: "file", path: asks.slice(this.file.folder.length), isThere };
    }
    const { path, fragment } = pressed.goesTo;
    const view = await this.shown.of(screenKey(pressed.goesTo));
    if (fragment !== "" && view.target === null) return { at: "nowhere" };
    const screen = this.file.inScreens ? `, screen ${view.shown + 1} of ${view.screens}` : "";
    return { at: "place", on: shortName(path) + screen, words: wordsAt(view), picture: miniature(view) };
  }

  async back(): Promise<void> {
    if (this.hasJumped) this.reader.current.back();
    else this.reader.current.stay();
    await new Promise((resolve) => setTimeout(resolve));
  }
}

/** What a press on the middle of a link's first line meets in its place; null where it meets the link, or cannot be tried. */
function whatTakesPress(link: Element): string | null {
  const lines = [...link.getClientRects()];
  if (lines.length > 0 && lines.every(({ width, height }) => width * height === 0))
    return "Its area has no size.";
  const [first] = lines.filter(({ width, height }) => width * height > 0);
  if (!first) return null;
  const met = link.ownerDocument.elementFromPoint(first.left + first.width / 2, first.top + first.height / 2);
  if (!met || link.contains(met) || met.contains(link)) return null;
  return `Something else lies where it is pressed: “${met.textContent?.trim().slice(0, 40) || met.localName}”.`;
}

function shortName(path: string): string {
  return path === "" ? "The page" : path.split("/").at(-1)!;
}
