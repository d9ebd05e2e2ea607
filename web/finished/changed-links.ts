/** A page of a finished file, as far as what is done to its links asks. */
export interface PageOfLinks {
  number: number;
  links: { id: string }[];
  places: { id: string }[];
  untouched: unknown[];
}

/** A page with what makes one state of its links into another done to it; what else has changed on it stays. */
export function changedLinks<Page extends PageOfLinks>(page: Page, from: Page, to: Page): Page {
  const was = byId(from.links);
  const will = byId(to.links);
  const links = page.links.flatMap((link): Page["links"] => {
    if (!was.has(link.id) && !will.has(link.id)) return [link];
    const next = will.get(link.id);
    if (!next) return [];
    return JSON.stringify(was.get(link.id)) === JSON.stringify(next) ? [link] : [next];
  });
  const there = new Set(page.links.map(({ id }) => id));
  const back = to.links.filter(({ id }) => !was.has(id) && !there.has(id));
  const known = new Set(page.places.map(({ id }) => id));
  return {
    ...page,
    links: [...links, ...back],
    places: [...page.places, ...to.places.filter(({ id }) => !known.has(id))],
    untouched:
      JSON.stringify(from.untouched) === JSON.stringify(to.untouched) ? page.untouched : to.untouched,
  };
}

function byId<Link extends { id: string }>(links: readonly Link[]): Map<string, Link> {
  return new Map(links.map((link) => [link.id, link]));
}
