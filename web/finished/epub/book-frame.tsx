import type { EpubPage } from "@vennet/core/finished/epub/epub-page";
import { useEffect, useLayoutEffect, useRef, useState } from "react";
import { Problem } from "../../parts/notice";
import { putPage } from "../../read/put-page";
import type { PlacedLink } from "../page-margin";
import type { OpenBook } from "./open-book";
import { linkAttribute, PageMap, type PickedText } from "./page-map";

/** A page of an e-book that is laid out. */
export interface LaidPage {
  path: string;
  map: PageMap;
  /** Where its links stand. */
  links: PlacedLink[];
}

/** How wide a page is shown, in CSS px. */
export const pageWidth = 600;

/** One page of an e-book with its links as they are to be, on which words, pictures and paragraphs are picked. */
export function BookFrame({
  book,
  page,
  active,
  landing,
  isPointing,
  onLaid,
  onPick,
  onSelect,
  onPoint,
}: {
  book: OpenBook;
  page: EpubPage;
  /** The id of the link that is worked on. */
  active: string | null;
  /** The element at which a link landed; null where none did. */
  landing: number | null;
  /** Whether a press says where a link leads. */
  isPointing: boolean;
  onLaid: (laid: LaidPage | null) => void;
  onPick: (picked: PickedText, at: Element | Range) => void;
  onSelect: (id: string | null) => void;
  onPoint: (place: { element: number; words: string }) => void;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  /** Made before anything was marked on the page that is shown. */
  const shownMap = useRef<PageMap | null>(null);
  const landedAt = useRef("");
  const [height, setHeight] = useState(400);
  const [problem, setProblem] = useState<string | null>(null);
  const latest = useRef({ onLaid, onPick, onSelect, onPoint, isPointing });
  latest.current = { onLaid, onPick, onSelect, onPoint, isPointing };

  // The page is put into the frame's own empty document, where no script of it runs.
  useLayoutEffect(() => {
    const inside = frame.current?.contentDocument;
    if (!inside) return;
    const { path } = page;
    let map: PageMap;
    try {
      putPage(inside, book.file, path);
      map = new PageMap(inside.body, book.source(path));
    } catch (error) {
      setProblem((error as Error).message);
      latest.current.onLaid(null);
      return;
    }
    setProblem(null);
    const own = inside.createElement("style");
    own.textContent = marks;
    inside.head.prepend(own);
    map.mark(page);
    shownMap.current = map;
    const lay = (): void => {
      const { top, bottom } = inside.body.getBoundingClientRect();
      setHeight(Math.ceil(Math.max(bottom - Math.min(0, top), inside.body.scrollHeight)));
      latest.current.onLaid({ path, map, links: placedLinks(inside, page) });
    };
    listen(frame.current!, inside, map, latest);
    const observer = new ResizeObserver(lay);
    observer.observe(inside.body);
    lay();
    return () => observer.disconnect();
  }, [book, page]);

  useEffect(() => {
    const inside = frame.current?.contentDocument;
    for (const one of inside?.querySelectorAll(`[${linkAttribute}]`) ?? [])
      one.toggleAttribute("data-active", one.getAttribute(linkAttribute) === active);
    const found = active && inside?.querySelector(`[${linkAttribute}="${CSS.escape(active)}"]`);
    if (found) seen(frame.current!, found);
  }, [active, page, book]);
  useEffect(() => {
    const inside = frame.current?.contentDocument;
    for (const one of inside?.body.querySelectorAll("[data-landed]") ?? [])
      one.removeAttribute("data-landed");
    if (landing === null) landedAt.current = "";
    if (!inside || landing === null) return;
    const target = shownMap.current?.element(landing);
    target?.setAttribute("data-landed", "");
    // Whoever works on links afterwards is not taken back.
    const key = `${page.path} ${landing}`;
    if (target && landedAt.current !== key) seen(frame.current!, target);
    landedAt.current = key;
  }, [landing, page, book]);

  return (
    <>
      {problem && <Problem>{`This page cannot be shown: ${problem}`}</Problem>}
      <iframe
        ref={frame}
        title={`Page ${page.number}: ${page.title}`}
        sandbox="allow-same-origin"
        style={{ width: `min(${pageWidth}px, calc(100vw - 3rem))`, height }}
        hidden={problem !== null}
        className={`block shrink-0 border border-hairline bg-white shadow-sm ${isPointing ? "outline-2 outline-blue outline-dashed" : ""}`}
      />
    </>
  );
}

const marks = `
html { background: #fff; color: #1c1a17; overflow: hidden; }
body { margin: 0; padding: 2rem 2.4rem 3rem; font: 1.05rem/1.55 Georgia, serif; overflow-wrap: anywhere; min-height: 20rem; box-sizing: border-box; }
img, svg { max-width: 100%; height: auto; }
[${linkAttribute}] { outline: 1px dashed #1d4f8f; outline-offset: 1px; cursor: pointer; }
[${linkAttribute}][data-active] { outline: 2px solid #1d4f8f; background: rgb(29 79 143 / 0.15); }
[data-landed] { box-shadow: -6px 0 0 #1d4f8f; }`;

/** Brings what is in the frame into view: the frame is as high as its page, and what is around it scrolls. */
function seen(frame: HTMLIFrameElement, element: Element): void {
  const desk = frame.closest("[data-scroll]");
  const box = boxOf(element);
  if (!desk || !box) return;
  const top = frame.getBoundingClientRect().top - desk.getBoundingClientRect().top + box.top;
  if (top < 40 || top + box.height > desk.clientHeight - 40)
    desk.scrollBy({ top: top - desk.clientHeight / 3 });
}

/** Where something stands on a page, in CSS px from its upper left corner: its first line. */
export function boxOf(what: Element | Range): { top: number; left: number; height: number } | null {
  const shown = "localName" in what && what.localName === "area" ? pictureOf(what) : what;
  const [box] = [...(shown?.getClientRects() ?? [])].filter(({ width, height }) => width * height > 0);
  return box ? { top: box.top, left: box.left, height: box.height } : null;
}

/** The picture of which an element is an area. */
function pictureOf(area: Element): Element | null {
  const name = area.closest("map")?.getAttribute("name");
  return name ? area.ownerDocument.querySelector(`[usemap="#${CSS.escape(name)}"]`) : null;
}

function placedLinks(inside: Document, { links }: EpubPage): PlacedLink[] {
  const elements = new Map<string, Element>();
  for (const element of inside.querySelectorAll(`[${linkAttribute}]`)) {
    const id = element.getAttribute(linkAttribute)!;
    if (!elements.has(id)) elements.set(id, element);
  }
  return links.flatMap(({ id }): PlacedLink[] => {
    const element = elements.get(id);
    const box = element && boxOf(element);
    return [{ id, ...(box ?? { top: 0, left: 0, height: 0 }) }];
  });
}

type Heard = React.RefObject<
  Pick<Parameters<typeof BookFrame>[0], "onPick" | "onSelect" | "onPoint" | "isPointing">
>;

function listen(frame: HTMLIFrameElement, inside: Document, map: PageMap, latest: Heard): void {
  inside.onclick = (event) => {
    event.preventDefault();
    const target = event.target as Element;
    const { isPointing, onPoint, onSelect, onPick } = latest.current;
    if (isPointing) {
      const place = map.pointedAt(target);
      if (place) onPoint(place);
      return;
    }
    const id = target.closest(`[${linkAttribute}]`)?.getAttribute(linkAttribute);
    if (id) return onSelect(id);
    if (!(inside.getSelection()?.isCollapsed ?? true)) return;
    const picked = target.localName === "img" ? map.picture(target) : null;
    if (picked) onPick(picked, target);
    else onSelect(null);
  };
  const pick = (): void => {
    const selection = inside.getSelection();
    if (!selection || selection.isCollapsed || latest.current.isPointing) return;
    const range = selection.getRangeAt(0);
    const picked = map.picked(range);
    if (picked) latest.current.onPick(picked, range);
  };
  inside.onpointerup = () => setTimeout(pick);
  inside.onkeydown = (event) => {
    // Keys mean the same whether the focus is on the page or beside it.
    const { key, code, ctrlKey, metaKey, shiftKey, altKey } = event;
    const same = { key, code, ctrlKey, metaKey, shiftKey, altKey, bubbles: true, cancelable: true };
    if (!frame.dispatchEvent(new KeyboardEvent("keydown", same))) event.preventDefault();
  };
}
