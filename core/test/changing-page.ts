/** Pages of an invented web that are asked twice: what became of one between, drawn with a seed. */
export interface PagePair {
  then: string;
  now: string;
  /** Whether its author has to be told that it is another page now. */
  isAnother: boolean;
  /** What was done to it. */
  what: string;
}

type Draw = () => number;

/** A stream of numbers from 0 to 1 that follows from a seed (mulberry32, from memory). */
function drawn(seed: number): Draw {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const syllables =
  "lo wa te ti de sa nd ree fox mar sh bre eze ca use way he ster ley so und po st pil ot".split(" ");
const common =
  "the a of and to in is it that for on with as at by from this be are or an which not but they when over under".split(
    " ",
  );

interface Article {
  title: string;
  sections: { heading: string; paragraphs: string[] }[];
}

interface Site {
  name: string;
  /** How its pages are built: with the elements of HTML, with classes alone, or with neither. */
  build: "elements" | "classes" | "bare";
  links: string[];
}

const integer = (draw: Draw, least: number, most: number): number =>
  least + Math.floor(draw() * (most - least + 1));
const pick = <T>(draw: Draw, from: readonly T[]): T => from[Math.floor(draw() * from.length)]!;
const word = (draw: Draw): string =>
  Array.from({ length: integer(draw, 2, 4) }, () => pick(draw, syllables)).join("");
const words = (draw: Draw, count: number, topic: readonly string[]): string =>
  Array.from({ length: count }, () => (draw() < 0.45 ? pick(draw, common) : pick(draw, topic))).join(" ");
const sentence = (draw: Draw, topic: readonly string[]): string =>
  `${words(draw, integer(draw, 7, 22), topic)}${draw() < 0.2 ? ` ${integer(draw, 1, 2026)}` : ""}.`;
const paragraph = (draw: Draw, topic: readonly string[]): string =>
  Array.from({ length: integer(draw, 2, 6) }, () => sentence(draw, topic)).join(" ");

function article(draw: Draw): Article {
  const topic = Array.from({ length: integer(draw, 60, 200) }, () => word(draw));
  return {
    title: words(draw, integer(draw, 2, 6), topic),
    sections: Array.from({ length: integer(draw, 1, 6) }, () => ({
      heading: words(draw, integer(draw, 1, 5), topic),
      paragraphs: Array.from({ length: integer(draw, 1, 5) }, () => paragraph(draw, topic)),
    })),
  };
}

function site(draw: Draw): Site {
  return {
    name: `${word(draw)} ${word(draw)}`,
    build: pick(draw, ["elements", "classes", "bare"]),
    links: Array.from({ length: integer(draw, 4, 20) }, () => `${word(draw)} ${word(draw)}`),
  };
}

/** The page as it is on one day: all that is not its article is of that day. */
function page(draw: Draw, { name, build, links }: Site, { title, sections }: Article): string {
  const topic = Array.from({ length: 80 }, () => word(draw));
  const list = (items: readonly string[]): string =>
    `<ul>${items.map((item) => `<li><a href="/${item.replace(/ /g, "-")}">${item}</a></li>`).join("")}</ul>`;
  const around = (element: string, className: string, content: string): string =>
    build === "elements"
      ? `<${element}>${content}</${element}>`
      : build === "classes"
        ? `<div class="${className}">${content}</div>`
        : `<div>${content}</div>`;
  const news = Array.from({ length: integer(draw, 3, 12) }, () => words(draw, integer(draw, 3, 9), topic));
  const advert = build === "bare" ? "" : around("aside", "advert", `<p>${paragraph(draw, topic)}</p>`);
  const comments =
    build === "classes" && draw() < 0.5
      ? `<div id="comments">${Array.from({ length: integer(draw, 1, 9) }, () => `<p>${sentence(draw, topic)}</p>`).join("")}</div>`
      : "";
  const day = `<p>${build === "elements" ? "<time>" : ""}${integer(draw, 1, 28)} ${integer(draw, 1, 12)} ${integer(draw, 2020, 2026)}${build === "elements" ? "</time>" : ""}, ${integer(draw, 1, 99999)} views</p>`;
  const text = `<h1>${title}</h1>${day}${sections
    .map(
      ({ heading, paragraphs }) => `<h2>${heading}</h2>${paragraphs.map((one) => `<p>${one}</p>`).join("")}`,
    )
    .join(`${advert}`)}`;
  const body =
    build === "elements" ? `<main><article>${text}</article></main>` : `<div class="content">${text}</div>`;
  return `<!doctype html><html lang="en"><head><title>${title} | ${name}</title></head><body>${around(
    "header",
    "site-header",
    `<p>${name}</p>${around("nav", "main-menu", list(links))}`,
  )}${body}${comments}${around("aside", "latest-news", list(news))}${around("footer", "footer", `<p>${integer(draw, 1, 9)} visitors, ${integer(draw, 2000, 2026)} ${name}</p>${list(links)}`)}</body></html>`;
}

const edits: Record<string, (draw: Draw, one: Article) => Article> = {
  nothing: (_draw, one) => one,
  "a sentence": (draw, one) => ({
    ...one,
    sections: one.sections.map((section, i) =>
      i === 0
        ? { ...section, paragraphs: [...section.paragraphs, sentence(draw, ["added", "later", "words"])] }
        : section,
    ),
  }),
  "a section more": (draw, one) => ({
    ...one,
    sections: [...one.sections, ...article(draw).sections.slice(0, 1)],
  }),
  "twice as long": (draw, one) => ({ ...one, sections: [...article(draw).sections, ...one.sections] }),
  "another title": (draw, one) => ({ ...one, title: article(draw).title }),
  "a paragraph less": (_draw, one) => ({
    ...one,
    sections: one.sections.map((section, i) =>
      i === 0 && section.paragraphs.length > 1
        ? { ...section, paragraphs: section.paragraphs.slice(1) }
        : section,
    ),
  }),
};

const changes: Record<string, (draw: Draw, home: Site, one: Article) => string> = {
  "another article": (draw, home) => page(draw, home, article(draw)),
  "another article of that title": (draw, home, { title }) => page(draw, home, { ...article(draw), title }),
  "a site of others": (draw) => page(draw, site(draw), article(draw)),
  "a list of articles": (draw, home) =>
    page(draw, home, {
      title: `All of ${word(draw)}`,
      sections: Array.from({ length: 8 }, () => ({
        heading: words(draw, 3, [word(draw), word(draw)]),
        paragraphs: [sentence(draw, [word(draw), word(draw), word(draw)])],
      })),
    }),
  "a note that it went": (draw, home) =>
    page(draw, home, {
      title: "Archive",
      sections: [
        { heading: "Closed", paragraphs: ["This offer has ended, and we thank all who took part."] },
      ],
    }),
};

/** A pair of pages that follows from a seed. */
export function pagePair(seed: number): PagePair {
  const draw = drawn(seed);
  const home = site(draw);
  const one = article(draw);
  const then = page(draw, home, one);
  const isAnother = draw() < 0.5;
  const what = pick(draw, Object.keys(isAnother ? changes : edits));
  const now = isAnother ? changes[what]!(draw, home, one) : page(draw, home, edits[what]!(draw, one));
  return { then, now, isAnother, what };
}
