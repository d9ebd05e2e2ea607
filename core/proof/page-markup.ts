import { nameSet as names } from "./name-set.ts";

/** Elements of MathML Core that hold formulas, and may say how they look. */
const formulas = names(
  "math mrow mi mn mo ms mtext mspace mfrac msqrt mroot mstyle msub msup msubsup munder mover munderover mmultiscripts",
  "mprescripts none mpadded mtable mtr mtd mlabeledtr menclose mfenced semantics annotation merror",
);

/**
 * Elements of HTML, MathML and SVG whose contents are shown as they stand, and that take no press and do nothing by
 * themselves (HTML 4.2 to 4.9, MathML Core, SVG 2, 5 and 10).
 */
const readable = names(
  "html head title meta link style body main header footer nav section article aside div address hgroup",
  "h1 h2 h3 h4 h5 h6 p pre blockquote ul ol menu li dl dt dd figure figcaption hr br wbr",
  "table caption colgroup col thead tbody tfoot tr th td",
  "a abbr b bdi cite code data dfn del em i img ins kbd mark q s samp small span strong sub sup time u var",
  "svg g image rect circle ellipse polygon path line text tspan desc",
);

/** Attributes that say what something is or how it reads, on any element. */
const telling = names(
  "id class lang xml:lang dir title role style xmlns epub:type hidden inert aria-hidden tabindex",
  "aria-label aria-labelledby aria-level display visibility pointer-events opacity",
);

/** Attributes of one element. */
const own: Record<string, ReadonlySet<string>> = {
  a: names("href target rel hreflang name"),
  img: names("src alt width height"),
  image: names("href x y width height"),
  td: names("colspan rowspan headers"),
  th: names("colspan rowspan headers scope abbr"),
  ol: names("start type reversed"),
  li: names("value"),
  col: names("span"),
  colgroup: names("span"),
  time: names("datetime"),
  q: names("cite"),
  blockquote: names("cite"),
  meta: names("charset name content property http-equiv"),
  link: names("href rel type"),
  style: names("type"),
  html: names("prefix version"),
  svg: names("width height"),
  rect: names("x y width height rx ry"),
  circle: names("cx cy r"),
  ellipse: names("cx cy rx ry"),
  polygon: names("points"),
  path: names("d"),
  line: names("x1 y1 x2 y2"),
  text: names("x y"),
  tspan: names("x y"),
};

const drawn = names("viewbox fill fill-opacity stroke stroke-width stroke-dasharray stroke-opacity");
const drawing = names("svg g rect circle ellipse polygon path line text tspan image");
const ofFormulas = names(
  "alttext mathvariant displaystyle scriptlevel lspace rspace stretchy symmetric maxsize minsize largeop movablelimits",
  "accent accentunder form fence separator linethickness columnalign rowalign columnspan rowspan notation encoding intent arg",
);
const sheetOrTelling = /^(stylesheet|icon|author|license|canonical|next|prev)$/;

/** Why what an element is may keep readers from a link in it or beside it; null where it is known that it does not. */
export function judgeElement(tag: string): string | null {
  return readable.has(tag) || formulas.has(tag)
    ? null
    : `It holds “${tag}”, which may hide links or take presses.`;
}

/**
 * Why an attribute may keep readers from a link, or lead them elsewhere; null where it is known that it does not. What
 * those do that say it themselves (`hidden`, `style`) is judged by what they say.
 */
export function judgeAttribute(tag: string, name: string, value: string): string | null {
  if (tag === "link" && name === "rel" && !sheetOrTelling.test(value.toLowerCase()))
    return `It is linked with another file as “${value}”.`;
  // A name from elsewhere comes before the words of a link (Accessible Name 1.2, 4.3.2).
  const isTold = tag === "a" ? name !== "aria-labelledby" : true;
  const isKnown =
    (telling.has(name) && isTold) ||
    /^(data-|xmlns:)/.test(name) ||
    own[tag]?.has(name) ||
    (drawing.has(tag) && drawn.has(name.toLowerCase())) ||
    (formulas.has(tag) && ofFormulas.has(name));
  return isKnown ? null : `“${name}” of “${tag}” may keep a press from a link, or lead it elsewhere.`;
}
