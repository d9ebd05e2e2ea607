import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { wordsAt } from "@vennet/core/finished/pdf/letters";
import { boxAround, spotId, topOfPage, type PdfLink, type PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { newId } from "@vennet/core/manuscript/ids";
import { noFrame } from "@vennet/core/manuscript/hotspot";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useBook } from "../book-page";
import { useDestinationNames } from "../destinations/known-destinations";
import { PageFrame } from "../frame/page-frame";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";
import { plural } from "../parts/wording";
import { PageThumbnails } from "../read/page-thumbnails";
import { LinkLine, type TakenLine } from "../write/links/link-line";
import { useLinkStates } from "../write/links/use-link-states";
import { useNewTargets } from "../write/links/use-new-targets";
import { BareAddresses } from "./bare-addresses";
import { FinishedCard, type CardWork } from "./finished-card";
import { useFinishedFile } from "./open-file";
import { PageDesk, type Tool } from "./page-desk";
import { PageMargin } from "./page-margin";
import { PageTools } from "./page-tools";
import type { Picked } from "./picked";
import { boxOf, useShownPage, type ShownPage } from "./shown-page";
import { useFoundWords } from "./found-words";
import { usePages, type KeptPage, type Pages } from "./use-pages";

/** Where the links of a finished file are worked on: its pages, each with its links, and their cards in the margin. */
export function PagesPage() {
  const book = useBook();
  const kept = usePages(book.id);
  const { file, problem } = useFinishedFile(book.id);
  return (
    <PageFrame
      book={book}
      state={
        <span role="status" className="text-sm text-faint">
          {kept.isSaving ? "Keeping …" : kept.pages ? "Kept" : ""}
        </span>
      }
    >
      <h1 className="sr-only">Pages</h1>
      {kept.problem && (
        <Problem action={<Button onClick={kept.again}>Look again</Button>}>{kept.problem}</Problem>
      )}
      {problem && <Problem>{`The file cannot be shown: ${problem}`}</Problem>}
      {kept.pages && file ? (
        <OpenPages bookId={book.id} file={file} pages={kept.pages} change={kept.change} />
      ) : (
        !problem && !kept.problem && <Waiting what="Opening the file" />
      )}
    </PageFrame>
  );
}

/** What the link line is open for: picked words or an area, or a link that is there. */
type Leading = { picked: Picked } | { link: PdfLink };

function OpenPages({
  bookId,
  file,
  pages,
  change,
}: {
  bookId: string;
  file: PDFDocumentProxy;
  pages: readonly KeptPage[];
  change: Pages["change"];
}) {
  const { finished } = useBook();
  const { chapterId } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const number = Math.max(1, pages.findIndex(({ id }) => id === chapterId) + 1);
  const page = pages[number - 1]!.document;
  const [scale, setScale] = useState(1);
  const [tool, setTool] = useState<Exclude<Tool, "spot">>("words");
  const [snaps, setSnaps] = useState(true);
  const [active, setActive] = useState<string | null>(null);
  const [leading, setLeading] = useState<Leading | null>(null);
  /** For what the author is to point at a place; the page on which it was asked. */
  const [pointing, setPointing] = useState<(Leading & { from: number }) | null>(null);
  const [isListing, setListing] = useState(false);
  const [told, setTold] = useState("");
  const desk = useRef<HTMLDivElement>(null);
  const { canvas, shown, problem } = useShownPage(file, number, scale);
  const names = useDestinationNames(bookId);
  const states = useLinkStates(bookId);
  const { targets } = useNewTargets(bookId, setTold);
  const words = useFoundWords(file, number);

  const turnTo = (to: number): void => {
    const next = Math.min(Math.max(1, to), pages.length);
    setLeading(null);
    void navigate(`/books/${bookId}/write/${pages[next - 1]!.id}`, { replace: true });
    if (desk.current) desk.current.scrollTop = 0;
  };
  // What another stage leads to is shown, and worked on.
  const wanted = search.get("link") ?? null;
  useEffect(() => {
    if (wanted !== null) setActive(wanted);
  }, [wanted]);
  const place = search.get("place");
  const links = useMemo(
    () => pages.flatMap(({ document }) => document.links.map((link) => ({ link, number: document.number }))),
    [pages],
  );

  const select = (id: string | null): void => {
    setActive(id);
    setLeading(null);
  };
  const step = (by: 1 | -1): void => {
    const here = links.findIndex(({ link }) => link.id === active);
    const from =
      here !== -1
        ? here + by
        : by === 1
          ? links.findIndex((one) => one.number >= number)
          : links.findLastIndex((one) => one.number <= number);
    const next = links[(from + links.length) % links.length];
    if (!next) return;
    if (next.number !== number) turnTo(next.number);
    setActive(next.link.id);
  };

  const withLink = (link: PdfLink, part: Partial<PdfLink>): PdfPage => ({
    ...page,
    links: page.links.map((one) => (one.id === link.id ? { ...one, ...part } : one)),
  });
  const lead = (
    to: Leading,
    destination: Destination,
    description: string | null,
    more: readonly PdfPage[] = [],
  ): void => {
    const at = "link" in to ? links.find(({ link }) => link.id === to.link.id) : null;
    // The page may have been turned since the place was asked for.
    const home = pages[(at?.number ?? pointing?.from ?? number) - 1]!.document;
    if ("link" in to) {
      const next = { ...to.link, destination, description };
      const same = home.links.map((one) => (one.id === next.id ? next : one));
      change(
        merged([{ ...home, links: same }, ...more]),
        `“${to.link.words || "The area"}” leads elsewhere.`,
      );
      setActive(to.link.id);
    } else {
      const { areas, words: under } = to.picked;
      const link: PdfLink = {
        id: newId(),
        from: null,
        words: under,
        areas,
        destination,
        description,
        frame: noFrame,
      };
      change(merged([{ ...home, links: [...home.links, link] }, ...more]), `Linked “${under || "an area"}”.`);
      setActive(link.id);
    }
    setLeading(null);
  };
  const takeLine = (taken: TakenLine): void => {
    if (leading) lead(leading, taken.destination, taken.description);
  };
  const pointAt = (x: number, y: number): void => {
    if (!pointing) return;
    const id = spotId(number, x, y);
    const [px, py] = [Math.round(x), Math.round(y)];
    const isThere = page.places.some((one) => one.id === id);
    const name = shown ? wordsAt(shown.letters, px, py) : "";
    const spot = { id, of: "spot" as const, level: null, name, x: px, y: py };
    const here = pointing.from === number;
    const target: PdfPage = { ...page, places: isThere ? page.places : [...page.places, spot] };
    const description = "link" in pointing ? pointing.link.description : null;
    const { from } = pointing;
    setPointing(null);
    lead(pointing, { kind: "place", target: id }, description, [target]);
    if (!here) turnTo(from);
  };

  const work: CardWork = {
    select,
    describe: (link, description) => change([withLink(link, { description })], "Described a link."),
    frame: (link, frame) => change([withLink(link, { frame })], "Framed a link."),
    lead: (link) => setLeading({ link }),
    point: (link) => {
      setLeading(null);
      setPointing({ link, from: number });
    },
    goThere: ({ destination }) => {
      if (destination.kind !== "place") return;
      const there = pages.find(
        ({ document }) =>
          topOfPage(document.number) === destination.target ||
          document.places.some(({ id }) => id === destination.target),
      );
      if (there) turnTo(there.document.number);
    },
    copy: (link, count) => {
      const further = pages.slice(number, number + count).map(({ document }) => ({
        ...document,
        links: [...document.links, { ...link, id: newId(), from: null, words: "" }],
      }));
      change(further, `Copied a link to ${plural(count, "page")}.`);
      setTold(`The link is on ${plural(count, "further page")} too.`);
    },
    remove: (link) => {
      change([{ ...page, links: page.links.filter(({ id }) => id !== link.id) }], "Removed a link.");
      setActive(null);
    },
  };
  const replaceUntouched = (from: string): void => {
    const old = page.untouched.find((one) => one.from === from);
    if (!old?.areas) return;
    const link: PdfLink = {
      id: newId(),
      from,
      words: old.words,
      areas: old.areas,
      destination: { kind: "place", target: topOfPage(number) },
      description: null,
      frame: noFrame,
    };
    const untouched = page.untouched.filter((one) => one.from !== from);
    change([{ ...page, untouched, links: [...page.links, link] }], "Took a link over.");
    setActive(link.id);
    setLeading({ link });
  };

  const isReady = shown !== null && shown.number === number;
  const areas = leading && ("link" in leading ? leading.link.areas : leading.picked.areas);
  return (
    <div
      className="grid h-full grid-rows-[auto_minmax(0,1fr)]"
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          setPointing(null);
          if (!leading) select(null);
        }
        if (/^(INPUT|SELECT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) return;
        if (event.key === "n") step(1);
        else if (event.key === "p") step(-1);
        else if (event.key === "PageDown") turnTo(number + 1);
        else if (event.key === "PageUp") turnTo(number - 1);
        else if (event.key === "Delete" && active) {
          const link = page.links.find(({ id }) => id === active);
          if (link) work.remove(link);
        } else return;
        event.preventDefault();
      }}
    >
      <PageTools
        number={number}
        label={page.label}
        count={pages.length}
        onTurn={turnTo}
        scale={scale}
        onScale={setScale}
        tool={tool}
        onTool={setTool}
        snaps={snaps}
        onSnaps={setSnaps}
        links={links.length}
        onStep={step}
        words={words}
        onLinkFound={(picked) => {
          select(null);
          setLeading({ picked });
        }}
        isListing={isListing}
        onList={() => setListing(!isListing)}
      />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] lg:grid-cols-[8.5rem_minmax(0,1fr)]">
        <nav
          aria-label="Pages in small"
          className="min-h-0 overflow-y-auto border-r border-hairline bg-paper p-2 max-lg:hidden"
        >
          <PageThumbnails document={file} current={number} onGoTo={turnTo} />
        </nav>
        <div ref={desk} data-scroll tabIndex={-1} className="min-h-0 overflow-auto px-6 py-4">
          <p role="status" className="sr-only">
            {told}
          </p>
          {finished?.isSigned && (
            <p className="mx-auto mb-3 max-w-4xl border-l-4 border-red bg-red-wash px-3 py-1.5">
              A signature stands in this file. A version with changed links is no longer signed.
            </p>
          )}
          {pointing && (
            <div
              role="status"
              className="sticky top-0 z-30 mx-auto mb-3 flex w-fit max-w-full flex-wrap items-center gap-3 border border-blue bg-blue-wash px-3 py-1.5"
            >
              Press the spot to which the link leads. Pages can be turned meanwhile.
              <Button kind="quiet" onClick={() => setPointing(null)}>
                Cancel
              </Button>
            </div>
          )}
          {isListing && (
            <BareAddresses file={file} pages={pages} onChange={change} onClose={() => setListing(false)} />
          )}
          <div className="mx-auto flex w-fit items-start gap-8 max-md:flex-col">
            <PageDesk
              shown={shown}
              canvas={canvas}
              problem={problem}
              page={page}
              tool={pointing ? "spot" : tool}
              snaps={snaps}
              active={active}
              picked={leading && "picked" in leading ? leading.picked : null}
              found={words.onPage}
              onPick={(picked) => {
                setActive(null);
                setLeading({ picked });
              }}
              onSelect={select}
              onArea={(link, next) => change([withLink(link, { areas: next })], "Moved a link.")}
              onSpot={pointAt}
            >
              {place !== null && <LandingMark shown={shown!} page={page} place={place} />}
              {leading && areas && (
                <div
                  data-over
                  className="absolute z-30 w-[34rem] max-w-[calc(100vw-3rem)]"
                  style={lineAt(shown!, areas)}
                >
                  <LinkLine
                    key={"link" in leading ? leading.link.id : JSON.stringify(areas)}
                    bookId={bookId}
                    destination={"link" in leading ? leading.link.destination : null}
                    words={"link" in leading ? leading.link.words : leading.picked.words}
                    description={"link" in leading ? leading.link.description : null}
                    wordsLabel={null}
                    onTake={takeLine}
                    onBringFile={targets.bringFile}
                    onLeave={() => setLeading(null)}
                  />
                  <div className="flex justify-end border-b-2 border-blue bg-paper px-3 pb-1">
                    <Button
                      kind="quiet"
                      className="!text-sm"
                      // Before the line is left for it, which closes the line.
                      onPointerDown={(event) => event.preventDefault()}
                      onClick={() => {
                        setPointing({ ...leading, from: number });
                        setLeading(null);
                      }}
                    >
                      Point at the place in the file
                    </Button>
                  </div>
                </div>
              )}
            </PageDesk>
            {isReady && (
              <div className="grid gap-4">
                <PageMargin
                  shown={shown}
                  links={page.links}
                  active={active}
                  card={(link) => (
                    <FinishedCard
                      link={link}
                      isActive={link.id === active}
                      pagesBehind={pages.length - number}
                      names={names}
                      states={states}
                      work={work}
                    />
                  )}
                />
                {page.untouched.length > 0 && <Untouched page={page} onReplace={replaceUntouched} />}
              </div>
            )}
          </div>
        </div>
      </div>
    </div>
  );
}

/** Of several states of one page one that has the links and places of all. */
function merged(all: readonly PdfPage[]): PdfPage[] {
  const byNumber = new Map<number, PdfPage>();
  for (const page of all) {
    const there = byNumber.get(page.number);
    const known = new Set(there?.places.map(({ id }) => id));
    byNumber.set(
      page.number,
      there
        ? { ...there, places: [...there.places, ...page.places.filter(({ id }) => !known.has(id))] }
        : page,
    );
  }
  return [...byNumber.values()];
}

/** Below the areas that the line is for, and within the page. */
function lineAt(shown: ShownPage, areas: PdfLink["areas"]): { left: number; top: number } {
  const { left, top, height } = boxOf(shown, boxAround(areas));
  return { left: Math.max(0, Math.min(left, shown.viewport.width - 544)), top: top + height + 6 };
}

function LandingMark({ shown, page, place }: { shown: ShownPage; page: PdfPage; place: string }) {
  const spot = page.places.find(({ id }) => id === place);
  if (!spot || spot.y === null) return null;
  const { top } = boxOf(shown, [spot.x ?? page.box[0], spot.y, (spot.x ?? page.box[0]) + 1, spot.y]);
  return (
    <div aria-hidden data-testid="landing" className="absolute -left-3 h-6 w-1.5 bg-blue" style={{ top }} />
  );
}

/** Links of the file that stay as they are, with the reason, and the way to give them another destination. */
function Untouched({ page, onReplace }: { page: PdfPage; onReplace: (from: string) => void }) {
  return (
    <section
      aria-labelledby="untouched"
      className="w-[17rem] border-l-2 border-red bg-paper px-3 py-2 text-sm"
    >
      <h2 id="untouched" className="font-semibold">
        {plural(page.untouched.length, "link stays", "links stay")} as the file has it
      </h2>
      <ul className="mt-1 grid gap-2">
        {page.untouched.map(({ from, words, areas, why }) => (
          <li key={from} className="[overflow-wrap:anywhere]">
            <span className="block font-serif">{words || "No words beneath"}</span>
            <span className="block text-faint">{why}</span>
            {areas && (
              <Button kind="quiet" className="-ml-1 !text-sm" onClick={() => onReplace(from)}>
                Lead it elsewhere
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
