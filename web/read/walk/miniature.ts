import type { ShownScreen } from "../flow-screen";

const width = 420;
const height = 168;
const mostWords = 400;

/** The words where a jump has landed: those of the element, else those after it in its block. */
export function wordsAt({ target, body }: ShownScreen): string {
  if (!target) return body.textContent?.trim().slice(0, mostWords) ?? "";
  if (target.textContent?.trim()) return target.textContent.slice(0, mostWords);
  const block = blockOf(target, body);
  const after = target.ownerDocument.createRange();
  after.setStartAfter(target);
  after.setEndAfter(block);
  const words = after.toString().trim() || block.textContent?.trim();
  return (words || block.nextElementSibling?.textContent || "").slice(0, mostWords);
}

/** A small picture of the text around what is shown, set as the page sets it. */
export function miniature({ target, body, styles }: ShownScreen): string {
  const first = target ? blockOf(target, body) : body.firstElementChild;
  const parts: string[] = [];
  const serializer = new XMLSerializer();
  target?.setAttribute("data-walked", "");
  let words = 0;
  for (let block = first; block && words < mostWords; block = block.nextElementSibling) {
    parts.push(serializer.serializeToString(block));
    words += block.textContent?.length ?? 0;
  }
  target?.removeAttribute("data-walked");
  const look = `${styles}\n[data-walked] { outline: 2px solid #1d4f8f; outline-offset: 2px; } .sheet { font-size: 15px; margin: 0; padding: 12px; background: #fff; color: #1c1a17; height: ${height}px; overflow: hidden; } .sheet > * { margin-top: 0; }`;
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><foreignObject width="${width}" height="${height}"><div xmlns="http://www.w3.org/1999/xhtml" class="sheet"><style>${look.replace(/[<&]/g, "")}</style>${parts.join("")}</div></foreignObject></svg>`;
  return `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
}

const blocks = "p, h1, h2, h3, h4, h5, h6, li, pre, figure, table, aside, .signposts, .notes";

function blockOf(element: Element, body: Element): Element {
  return (
    element.closest(blocks) ?? (element.parentElement && element !== body ? element.parentElement : element)
  );
}
