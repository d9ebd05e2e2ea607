import type { EpubPage } from "@vennet/core/finished/epub/epub-page";
import { inTextOrder } from "@vennet/core/finished/epub/finished-chapter";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useBook } from "../../book-page";
import { useDestinationNames } from "../../destinations/known-destinations";
import { Problem } from "../../parts/notice";
import { plural } from "../../parts/wording";
import { useLinkStates } from "../../write/links/use-link-states";
import { BareAddresses } from "../bare-addresses";
import { FinishedStage, PointingBar } from "../finished-stage";
import { nextLink, onStageKey, pagesWithLinks } from "../going-through";
import { LineOnPage, lineWidth } from "../line-on-page";
import { FinishedCard } from "../finished-card";
import { PageMargin } from "../page-margin";
import { UntouchedLinks } from "../untouched-links";
import { useSeenPart } from "../use-seen-part";
import { usePages, type KeptPage, type Pages } from "../use-pages";
import { bareInText, linkOnBare } from "./bare-in-text";
import { BookFrame, boxOf, pageWidth, type LaidPage } from "./book-frame";
import { BookPages } from "./book-pages";
import { useOpenBook, type OpenBook } from "./open-book";
import { OwnWords } from "./own-words";
import { useTextSearch } from "./text-search";
import { TextTools } from "./text-tools";
import { picksOf, useTextWork } from "./use-text-work";

/** Where the links of a finished e-book are worked on: its pages, each with its links, and their cards in the margin. */
export function BookStage() {
  const { id } = useBook();
  const kept = usePages<EpubPage>(id);
  const { book, asked } = useOpenBook(id);
  return (
    <FinishedStage kept={kept} asked={asked}>
      {kept.pages && book && <OpenPages bookId={id} book={book} pages={kept.pages} change={kept.change} />}
    </FinishedStage>
  );
}

function OpenPages({
  bookId,
  book,
  pages,
  change,
}: {
  bookId: string;
  book: OpenBook;
  pages: readonly KeptPage<EpubPage>[];
  change: Pages<EpubPage>["change"];
}) {
  const { chapterId } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const number = Math.max(1, pages.findIndex(({ id }) => id === chapterId) + 1);
  const page = pages[number - 1]!.document;
  const [active, setActive] = useState<string | null>(null);
  const [landing, setLanding] = useState<number | null>(null);
  const [isListing, setListing] = useState(false);
  const [laid, setLaid] = useState<LaidPage | null>(null);
  /** Where the link line is to stand. */
  const [lineAt, setLineAt] = useState<{ top: number; left: number }>({ top: 0, left: 0 });
  const [problem, setProblem] = useState("");
  const desk = useRef<HTMLDivElement>(null);
  const names = useDestinationNames(bookId);
  const states = useLinkStates(bookId);
  const textOf = useCallback(
    (at: number) => book.source(pages[at - 1]!.document.path).text,
    // The pages of a file never change, only their links do.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [book],
  );
  const words = useTextSearch(textOf, pages.length, number);
  const links = useMemo(
    () =>
      pages.flatMap(({ document: { number: on, links: all } }) =>
        inTextOrder(all).map(({ id }) => ({ id, number: on })),
      ),
    [pages],
  );

  const goTo = (to: number, element: number | null): void => {
    const next = Math.min(Math.max(1, to), pages.length);
    setLeading(null);
    setProblem("");
    setLanding(element);
    if (next === number) return;
    void navigate(`/books/${bookId}/write/${pages[next - 1]!.id}`, { replace: true });
    if (desk.current) desk.current.scrollTop = 0;
  };
  const turnTo = (to: number): void => goTo(to, null);
  // What another stage leads to is shown, and worked on.
  const wanted = search.get("link");
  useEffect(() => {
    if (wanted !== null) setActive(wanted);
  }, [wanted]);
  const place = search.get("place");
  useEffect(() => {
    const found = place === null ? undefined : page.places.find(({ id }) => id === place);
    if (found) setLanding(found.element);
  }, [place, page]);

  const select = (id: string | null): void => {
    setActive(id);
    setLeading(null);
    setProblem("");
  };
  const step = (by: 1 | -1): void => {
    const next = nextLink(links, active, number, by);
    if (!next) return;
    if (next.number !== number) turnTo(next.number);
    setActive(next.id);
  };
  const text = useTextWork({ book, pages, number, change, goTo, select: setActive, tell: setProblem });
  const { leading, setLeading, isPointing, work } = text;
  const lineUnder = (what: Element | Range | null | undefined): void => {
    const box = what ? boxOf(what) : null;
    setLineAt({ top: (box?.top ?? 0) + (box?.height ?? 0) + 8, left: box?.left ?? 0 });
  };
  // Of a link that is there the line stands below it.
  const at = laid?.links.find(({ id }) => leading && "link" in leading && id === leading.link.id);
  const line = at ? { top: at.top + at.height + 8, left: at.left } : lineAt;

  return (
    <div
      className="grid h-full grid-rows-[auto_minmax(0,1fr)]"
      onKeyDown={(event) =>
        onStageKey(event, {
          leave: () => {
            text.stopPointing();
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
      <TextTools
        number={number}
        titles={pages.map(({ document }) => document.title)}
        onTurn={turnTo}
        links={links.length}
        onStep={step}
        words={words}
        onLinkFound={() => {
          const picked = words.found[0] && laid?.map.words(...words.found[0]);
          if (!picked) return;
          lineUnder(laid?.map.range(...words.found[0]!));
          text.pick(picked);
        }}
        isListing={isListing}
        onList={() => setListing(!isListing)}
      />
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] lg:grid-cols-[13rem_minmax(0,1fr)]">
        <BookPages pages={pages} current={number} onGoTo={turnTo} />
        <div ref={desk} data-scroll tabIndex={-1} className="min-h-0 overflow-auto px-6 py-4">
          {isPointing && (
            <PointingBar onCancel={text.stopPointing}>
              Press the paragraph, heading or picture to which the link leads. Pages can be turned meanwhile.
            </PointingBar>
          )}
          {page.stays !== null && <Problem>{page.stays}</Problem>}
          {laid && !laid.map.isTrue && page.stays === null && (
            <Problem>
              This page is shown otherwise than it is written, so no new links can be put on it. Those that it
              has can be changed.
            </Problem>
          )}
          {problem && (
            <div className="sticky top-0 z-30 mx-auto mb-3 max-w-3xl">
              <Problem>{problem}</Problem>
            </div>
          )}
          {isListing && (
            <BareAddresses
              pages={pages.length}
              look={bareInText(book, pages)}
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
            <div className="relative" data-testid="book-page">
              <BookFrame
                book={book}
                page={page}
                active={active}
                landing={landing}
                isPointing={isPointing}
                onLaid={setLaid}
                onPick={(picked, where) => {
                  if (!laid?.map.isTrue) return;
                  lineUnder(where);
                  text.pick(picked);
                }}
                onSelect={select}
                onPoint={text.pointAt}
              />
              <FoundMarks laid={laid} stretches={words.found} />
              {leading && "picked" in leading && leading.picked.on.kind === "words" && (
                <FoundMarks laid={laid} stretches={[[leading.picked.on.from, leading.picked.on.to]]} />
              )}
              {leading && (
                <LineOnPage
                  key={JSON.stringify(picksOf(leading).on)}
                  bookId={bookId}
                  link={
                    "link" in leading
                      ? leading.link
                      : { destination: null, words: picksOf(leading).words, description: null }
                  }
                  style={{ top: line.top, left: Math.max(0, Math.min(line.left, pageWidth - lineWidth)) }}
                  onTake={text.takeLine}
                  onLeave={() => setLeading(null)}
                  onPoint={text.beginPointing}
                />
              )}
            </div>
            <div className="grid gap-4">
              <PageMargin
                links={laid?.path === page.path ? laid.links : []}
                active={active}
                empty="No link is on this page. Select words of it, or press a picture."
                card={(id) => {
                  const link = page.links.find((one) => one.id === id);
                  return (
                    link && (
                      <FinishedCard
                        link={link}
                        isActive={id === active}
                        {...(id === active ? { lost: { href: link.href, nearest: text.nearest(link) } } : {})}
                        names={names}
                        states={states}
                        work={work}
                        said={
                          <OwnWords
                            key={`${id} ${link.words}`}
                            link={link}
                            onSay={(said) => text.say(link, said)}
                          />
                        }
                      />
                    )
                  );
                }}
              />
              {page.untouched.length > 0 && (
                <UntouchedLinks
                  links={page.untouched}
                  canReplace={() => page.stays === null}
                  onReplace={(from) => {
                    const on = page.untouched.find((one) => one.from === from)?.on;
                    lineUnder(on && laid?.map.element(on.element));
                    text.replaceUntouched(from);
                  }}
                />
              )}
            </div>
          </div>
        </div>
      </div>
    </div>
  );
}

/** Marks letters of the page that is shown: found words, or those that are picked. */
function FoundMarks({
  laid,
  stretches,
}: {
  laid: LaidPage | null;
  stretches: readonly (readonly [from: number, to: number])[];
}) {
  const origin = useRef<HTMLSpanElement>(null);
  const seen = useSeenPart(origin);
  const boxes = useMemo(
    () => stretches.flatMap((stretch) => [...(laid?.map.range(...stretch)?.getClientRects() ?? [])]),
    [laid, stretches],
  );
  return (
    <>
      <span ref={origin} aria-hidden className="absolute top-0 left-0" />
      {boxes
        .filter(({ top, bottom }) => bottom >= seen.from && top <= seen.to)
        .map(({ left, top, width, height }, i) => (
          <span
            key={i}
            aria-hidden
            className="pointer-events-none absolute border-b-2 border-[#1d4f8f] bg-[#1d4f8f]/10"
            style={{ left: left + 1, top: top + 1, width, height }}
          />
        ))}
    </>
  );
}
