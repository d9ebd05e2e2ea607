import { hasScheme } from "@vennet/core/proof/exported-folder";
import { whereInPage } from "@vennet/core/proof/where-in-page";
import type { PressedLink, ScreenState, ShownScreen } from "../flow-screen";
import { hrefOf, resolvePath, type OpenFlow } from "../open-flow";
import { miniature, wordsAt } from "./miniature";
import type { Shown } from "./shown";
import type { FileLink, Landed, Walker } from "./walker";

/** What a robot presses on the reader of flowing text. */
export interface PressedFlowReader {
  go: (to: ScreenState) => void;
  press: (link: PressedLink) => void;
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

  constructor(
    private readonly file: OpenFlow,
    private readonly reader: { current: PressedFlowReader },
    private readonly shown: Shown<ShownScreen>,
  ) {}

  links(): Promise<FlowLink[]> {
    const all = this.file.pages.flatMap(({ path }) => {
      const links = [...this.file.page(path).querySelectorAll("a")].filter((link) => hrefOf(link) !== null);
      return links.map((link, at): FlowLink => {
        const name = path === "" ? "the page" : path;
        const where = whereInPage(name, link.getAttribute("id"), at + 1);
        return {
          where,
          on: shortName(path),
          words: link.textContent?.trim() ?? "",
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
    return miniature(await this.shown.of(screenKey(state)));
  }

  async follow(link: FileLink): Promise<Landed> {
    const { path, href, words } = link as FlowLink;
    this.hasJumped = false;
    this.reader.current.press({ name: words, href });
    if (hasScheme(href)) return { at: "address", address: href };
    const to = resolvePath(path, href);
    if (!this.file.pages.some((page) => page.path === to.path)) {
      const isThere = this.file.files.has(to.path);
      // The e-book's package stands in a folder of its own; links name files from there.
      return { at: "file", path: this.file.format === "epub" ? href : to.path, isThere };
    }
    this.hasJumped = true;
    const view = await this.shown.of(screenKey({ ...to, link: null }));
    if (to.fragment !== "" && view.target === null) return { at: "nowhere" };
    const screen = this.file.format === "epub" ? `, screen ${view.shown + 1} of ${view.screens}` : "";
    return { at: "place", on: shortName(to.path) + screen, words: wordsAt(view), picture: miniature(view) };
  }

  async back(): Promise<void> {
    if (this.hasJumped) this.reader.current.back();
    else this.reader.current.stay();
    await new Promise((resolve) => setTimeout(resolve));
  }
}

function shortName(path: string): string {
  return path === "" ? "The page" : path.split("/").at(-1)!;
}
