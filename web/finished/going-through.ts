import type { KeyboardEvent } from "react";
import type { PageOfLinks } from "./changed-links";
import type { KeptPage } from "./use-pages";

/** A link with the number of its page. */
export interface LinkOnPage {
  id: string;
  number: number;
}

/** The link after or before the one that is worked on, else the nearest from the page that is shown on; round the ends. */
export function nextLink(
  links: readonly LinkOnPage[],
  active: string | null,
  number: number,
  by: 1 | -1,
): LinkOnPage | null {
  const here = links.findIndex(({ id }) => id === active);
  const from =
    here !== -1
      ? here + by
      : by === 1
        ? links.findIndex((one) => one.number >= number)
        : links.findLastIndex((one) => one.number <= number);
  return links[(from + links.length) % links.length] ?? null;
}

/** What keys do on a page of a finished file. */
export interface StageKeys {
  leave: () => void;
  step: (by: 1 | -1) => void;
  turn: (by: 1 | -1) => void;
  /** Takes the link out that is worked on. @returns whether there is one */
  remove: () => boolean;
}

/** Does what a key stands for, unless somebody types. */
export function onStageKey(event: KeyboardEvent, { leave, step, turn, remove }: StageKeys): void {
  if (event.key === "Escape") leave();
  if (/^(INPUT|SELECT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) return;
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "n") step(1);
  else if (event.key === "p") step(-1);
  else if (event.key === "PageDown") turn(1);
  else if (event.key === "PageUp") turn(-1);
  else if (event.key !== "Delete" || !remove()) return;
  event.preventDefault();
}

/** Pages with new links for what was chosen on each. */
export function pagesWithLinks<
  Link extends { id: string },
  Page extends PageOfLinks & { links: Link[] },
  Chosen extends { number: number },
>(pages: readonly KeptPage<Page>[], chosen: readonly Chosen[], linkOn: (one: Chosen) => Link): Page[] {
  return [...new Set(chosen.map(({ number }) => number))].map((number) => {
    const { document } = pages[number - 1]!;
    const fresh = chosen.filter((one) => one.number === number).map(linkOn);
    return { ...document, links: [...document.links, ...fresh] };
  });
}
