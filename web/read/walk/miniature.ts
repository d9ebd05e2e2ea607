import { landingLength } from "@vennet/core/proof/landing";
import type { ShownScreen } from "../flow-screen";

const width = 420;
const height = 168;
/** More letters than these do not fit into the picture. */
const mostLetters = 400;

/** The words where a jump has landed: those of the element, else those after it in its block. */
export function wordsAt({ target, body }: ShownScreen): string {
  return landedText(target, body).replace(/\s+/g, " ").trim().slice(0, landingLength);
}

function landedText(target: Element | null, body: Element): string {
  if (!target) return seenWords(body);
  if (target.textContent?.trim()) return seenWords(target);
  const block = blockOf(target, body);
  const after = target.ownerDocument.createRange();
  after.setStartAfter(target);
  after.setEndAfter(block);
  const next = block.nextElementSibling;
  return after.toString().trim() || seenWords(block).trim() || (next === null ? "" : seenWords(next));
}

/** The words of an element as they are shown, those of blocks and list entries apart; pictures in SVG have no such. */
function seenWords(element: Element): string {
  return (element as HTMLElement).innerText ?? element.textContent ?? "";
}

/** A small picture of the text around what is shown, set as the page sets it. */
export function miniature({ target, body, styles }: ShownScreen): string {
  const first = target ? blockOf(target, body) : body.firstElementChild;
  const parts: string[] = [];
  const serializer = new XMLSerializer();
  target?.setAttribute("data-walked", "");
  let letters = 0;
  for (let block = first; block && letters < mostLetters; block = block.nextElementSibling) {
    parts.push(serializer.serializeToString(block));
    letters += block.textContent?.length ?? 0;
  }
  target?.removeAttribute("data-walked");
  const look = `${styles}\n[data-walked] { outline: 2px solid #1d4f8f; outline-offset: 2px; } .sheet { font-size: 15px; margin: 0; padding: 12px; overflow-wrap: break-word; background: #fff; color: #1c1a17; height: ${height}px; overflow: hidden; } .sheet > * { margin-top: 0; }`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><foreignObject width="${width}" height="${height}"><div xmlns="http://www.w3.org/1999/xhtml" class="sheet"><style>${look.replace(/[<&]/g, "")}</style>${parts.join("")}</div></foreignObject></svg>`;
  return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
}

const blocks = "p, h1, h2, h3, h4, h5, h6, li, pre, figure, table, aside, .signposts, .notes";

function blockOf(element: Element, body: Element): Element {
  return (
    element.closest(blocks) ?? (element.parentElement && element !== body ? element.parentElement : element)
  );
}
