import { OpenContainer, type Stretch } from "./open-container.ts";

/** A link of a page: its element, from the first to the last of its characters. */
export interface LinkElement extends Stretch {
  /** The element's first tag, and what is between its tags. */
  tag: string;
  inner: string;
  href: string;
}

const page = /(^|\/)(?!nav\.|cover\.|file-\d)[^/]*\.x?html$/;

/** Exported pages of XHTML or HTML whose links can be damaged. */
export class OpenPages extends OpenContainer {
  /** The pages that hold the text; no page of contents or the like. */
  get pages(): string[] {
    return this.files.has("")
      ? [""]
      : [...this.files.keys()].filter((path) => page.test(path) && !path.includes("files/"));
  }

  /** The page that holds the lists by which a reader finds the way. */
  get navigation(): string {
    return this.pathOf(/nav\.xhtml$/) ?? this.pages[0]!;
  }

  /** The links of the text, with more about them than an expression says. */
  links(which: RegExp = /./s): LinkElement[] {
    return this.elements(this.pages, /<a\b(?=[^>]*\bhref=)([^>]*)>(.*?)<\/a>/s).filter(
      ({ tag, inner }) => which.test(tag) || which.test(inner),
    );
  }

  /** Those of the links that the text itself has, and not a list of contents, in web pages. */
  ownLinks(): LinkElement[] {
    return this.links().filter(({ path, start }) => !this.isInNav(path, start));
  }

  /** The entries of the lists by which a reader finds the way. */
  entries(type: "toc" | "page-list" | "nav"): LinkElement[] {
    const path = this.navigation;
    const list =
      type === "nav" ? /<nav aria-label.*?<\/nav>/s : new RegExp(`<nav epub:type="${type}".*?</nav>`, "s");
    const [nav] = this.find([path], list);
    if (!nav) return [];
    return this.elements([path], /<a\b([^>]*)>(.*?)<\/a>/s).filter(
      ({ start, end }) => start > nav.start && end < nav.end,
    );
  }

  /** The links from one page to the next that are no part of the text. */
  waysOn(): LinkElement[] {
    return this.links().filter(({ path, start }) => {
      const before = this.text(path).slice(0, start);
      return before.lastIndexOf('<nav class="ways"') > before.lastIndexOf("</nav>");
    });
  }

  /** Rules at the end of the style sheet of all pages, or of the one that holds it itself. */
  addRules(rules: string): void {
    const style = this.pathOf(/style\.css$/);
    if (style) return this.write(style, `${this.text(style)}\n${rules}\n`);
    const [page = ""] = this.pages;
    this.write(
      page,
      this.text(page).replace("</style>", () => `${rules}</style>`),
    );
  }

  /** A link's element with another first tag, or other contents. */
  relink(link: LinkElement, { tag = link.tag, inner = link.inner }: { tag?: string; inner?: string }): void {
    this.replace(link, `<a${tag}>${inner}</a>`);
  }

  private elements(paths: readonly string[], expression: RegExp): LinkElement[] {
    return this.find(paths, expression).map((stretch) => {
      const [, tag = "", inner = ""] = stretch.match;
      return { ...stretch, tag, inner, href: /href="([^"]*)"/.exec(tag)?.[1] ?? "" };
    });
  }

  private isInNav(path: string, at: number): boolean {
    const before = this.text(path).slice(0, at);
    return before.lastIndexOf("<nav") > before.lastIndexOf("</nav>");
  }
}

/** A link's first tag with an attribute set, in place of the one that it has. */
export function withAttribute(tag: string, name: string, value: string): string {
  const without = withoutAttribute(tag, name);
  return `${without} ${name}="${value}"`;
}

export function withoutAttribute(tag: string, name: string): string {
  return tag.replace(new RegExp(`\\s(?:xlink:)?${name}="[^"]*"`, "g"), "");
}

/** A link's first tag with another address. */
export function withHref(tag: string, href: string): string {
  return tag.replace(/href="[^"]*"/g, `href="${href}"`);
}
