import { boxAround, type PdfLink, type PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useBook } from "../../book-page";
import { useDestinationNames } from "../../destinations/known-destinations";
import { useLinkStates } from "../../write/links/use-link-states";
import { useNewTargets } from "../../write/links/use-new-targets";
import { usePdfDocument } from "../../parts/use-pdf-document";
import { plural } from "../../parts/wording";
import { BareAddresses } from "../bare-addresses";
import { bareInPages, linkOnBare } from "./bare-in-pages";
import { CopyOn } from "./copy-on";
import { FrameFields } from "./frame-fields";
import { FinishedStage, PointingBar } from "../finished-stage";
import { nextLink, onStageKey, pagesWithLinks } from "../going-through";
import { LineOnPage, lineWidth } from "../line-on-page";
import { FinishedCard } from "../finished-card";
import { PageDesk, type Tool } from "./page-desk";
import { PageMargin } from "../page-margin";
import { PageTools } from "./page-tools";
import { boxOf, useShownPage, type ShownPage } from "./shown-page";
import { useFoundWords } from "./found-words";
import { UntouchedLinks } from "../untouched-links";
import { useLinkWork } from "./use-link-work";
import { WaysThrough } from "./ways-through";
import { usePages, type KeptPage, type Pages } from "../use-pages";

/** Where the links of a finished file are worked on: its pages, each with its links, and their cards in the margin. */
export function PagesPage() {
  const { id, finished } = useBook();
  const kept = usePages<PdfPage>(id);
  const { file, asked } = usePdfDocument(`/api/books/${id}/finished/file`, finished?.password ?? null);
  return (
    <FinishedStage kept={kept} asked={asked}>
      {kept.pages && file && <OpenPages bookId={id} file={file} pages={kept.pages} change={kept.change} />}
    </FinishedStage>
  );
}

function OpenPages({
  bookId,
  file,
  pages,
  change,
}: {
  bookId: string;
  file: PDFDocumentProxy;
  pages: readonly KeptPage<PdfPage>[];
  change: Pages<PdfPage>["change"];
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
  const [isListing, setListing] = useState(false);
  const desk = useRef<HTMLDivElement>(null);
  const { canvas, shown, problem } = useShownPage(file, number, scale);
  const names = useDestinationNames(bookId);
  const states = useLinkStates(bookId);
  const words = useFoundWords(file, number);
  const [told, setTold] = useState("");
  const { targets } = useNewTargets(bookId, setTold);

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
    () =>
      pages.flatMap(({ document: { number: on, links: all } }) => all.map(({ id }) => ({ id, number: on }))),
    [pages],
  );

  const select = (id: string | null): void => {
    setActive(id);
    setLeading(null);
  };
  const step = (by: 1 | -1): void => {
    const next = nextLink(links, active, number, by);
    if (!next) return;
    if (next.number !== number) turnTo(next.number);
    setActive(next.id);
  };

  const linking = useLinkWork({ pages, number, change, shown, turnTo, select: setActive, tell: setTold });
  const { leading, setLeading, isPointing, work } = linking;

  const placed = useMemo(
    () =>
      shown ? page.links.map(({ id, areas }) => ({ id, ...boxOf(shown, boxAround(areas.slice(0, 1))) })) : [],
    [shown, page.links],
  );
  const isReady = shown !== null && shown.number === number;
  const areas = leading && ("link" in leading ? leading.link.areas : leading.picked.areas);
  return (
    <div
      className="grid h-full grid-rows-[auto_minmax(0,1fr)]"
      onKeyDown={(event) =>
        onStageKey(event, {
          leave: () => {
            linking.stopPointing();
            if (!leading) select(null);
          },
          step,
          turn: (by) => turnTo(number + by),
          remove: () => {
            const link = page.links.find(({ id }) => id === active);
            if (link) work.remove(link);
            return link !== undefined;
          },
        })
      }
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
        <WaysThrough file={file} pages={pages} current={number} onGoTo={turnTo} />
        <div ref={desk} data-scroll tabIndex={-1} className="min-h-0 overflow-auto px-6 py-4">
          <p role="status" className="sr-only">
            {told}
          </p>
          {finished?.isSigned && (
            <p className="mx-auto mb-3 max-w-4xl border-l-4 border-red bg-red-wash px-3 py-1.5">
              A signature stands in this file. A version with changed links is no longer signed.
            </p>
          )}
          {isPointing && (
            <PointingBar onCancel={linking.stopPointing}>
              Press the spot to which the link leads. Pages can be turned meanwhile.
            </PointingBar>
          )}
          {isListing && (
            <BareAddresses
              pages={pages.length}
              look={bareInPages(file, pages)}
              onLink={(chosen) =>
                change(
                  pagesWithLinks(pages, chosen, linkOnBare),
                  `Linked ${plural(chosen.length, "address", "addresses")}.`,
                )
              }
              onClose={() => setListing(false)}
            />
          )}
          <div className="mx-auto flex w-fit items-start gap-8 max-md:flex-col">
            <PageDesk
              shown={shown}
              canvas={canvas}
              problem={problem}
              page={page}
              tool={isPointing ? "spot" : tool}
              snaps={snaps}
              active={active}
              picked={leading && "picked" in leading ? leading.picked : null}
              found={words.onPage}
              onPick={(picked) => {
                setActive(null);
                setLeading({ picked });
              }}
              onSelect={select}
              onArea={linking.move}
              onSpot={linking.pointAt}
            >
              {place !== null && <LandingMark shown={shown!} page={page} place={place} />}
              {leading && areas && (
                <LineOnPage
                  key={"link" in leading ? leading.link.id : JSON.stringify(areas)}
                  bookId={bookId}
                  link={"link" in leading ? leading.link : { ...unled, words: leading.picked.words }}
                  style={lineAt(shown!, areas)}
                  onTake={linking.takeLine}
                  onBringFile={targets.bringFile}
                  onShelf={targets.leadToShelf}
                  onLeave={() => setLeading(null)}
                  onPoint={linking.beginPointing}
                />
              )}
            </PageDesk>
            {isReady && (
              <div className="grid gap-4">
                <PageMargin
                  links={placed}
                  active={active}
                  empty="No link is on this page. Pull over words to pick them, or draw an area."
                  card={(id) => {
                    const link = page.links.find((one) => one.id === id)!;
                    return (
                      <FinishedCard
                        link={link}
                        isActive={id === active}
                        names={names}
                        states={states}
                        work={work}
                        fields={<FrameFields link={link} onFrame={(frame) => linking.frame(link, frame)} />}
                        more={
                          number < pages.length && (
                            <CopyOn
                              pagesBehind={pages.length - number}
                              onCopy={(count) => linking.copy(link, count)}
                            />
                          )
                        }
                      />
                    );
                  }}
                />
                {page.untouched.length > 0 && (
                  <UntouchedLinks
                    links={page.untouched}
                    canReplace={(from) =>
                      page.untouched.some((one) => one.from === from && one.areas !== null)
                    }
                    onReplace={linking.replaceUntouched}
                  />
                )}
              </div>
            )}
          </div>
        </div>
      </div>
    </div>
  );
}

/** What a link that is to be made has. */
const unled = { destination: null, description: null };

/** Below the areas that the line is for, and within the page. */
function lineAt(shown: ShownPage, areas: PdfLink["areas"]): { left: number; top: number } {
  const { left, top, height } = boxOf(shown, boxAround(areas));
  return { left: Math.max(0, Math.min(left, shown.viewport.width - lineWidth)), top: top + height + 6 };
}

function LandingMark({ shown, page, place }: { shown: ShownPage; page: PdfPage; place: string }) {
  const spot = page.places.find(({ id }) => id === place);
  if (!spot || spot.y === null) return null;
  const { top } = boxOf(shown, [spot.x ?? page.box[0], spot.y, (spot.x ?? page.box[0]) + 1, spot.y]);
  return (
    <div aria-hidden data-testid="landing" className="absolute -left-3 h-6 w-1.5 bg-blue" style={{ top }} />
  );
}
