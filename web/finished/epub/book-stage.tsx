import type { EpubPage } from "@vennet/core/finished/epub/epub-page";
import { inTextOrder } from "@vennet/core/finished/epub/finished-chapter";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { useBook } from "../../book-page";
import { useDestinationNames } from "../../destinations/known-destinations";
import { PageFrame } from "../../frame/page-frame";
import { Button } from "../../parts/button";
import { Problem, Waiting } from "../../parts/notice";
import { plural } from "../../parts/wording";
import { LinkLine } from "../../write/links/link-line";
import { useLinkStates } from "../../write/links/use-link-states";
import { BareAddresses } from "../bare-addresses";
import { FinishedCard } from "../finished-card";
import { PageMargin } from "../page-margin";
import { UntouchedLinks } from "../untouched-links";
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
  const { book, problem } = useOpenBook(id);
  return (
    <PageFrame
      book={useBook()}
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
      {kept.pages && book ? (
        <OpenPages bookId={id} book={book} pages={kept.pages} change={kept.change} />
      ) : (
        !problem && !kept.problem && <Waiting what="Opening the file" />
      )}
    </PageFrame>
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
      pages.flatMap(({ document }) =>
        inTextOrder(document.links).map((link) => ({ link, number: document.number })),
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
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          text.stopPointing();
          if (!leading) select(null);
        }
        if (/^(INPUT|SELECT|TEXTAREA)$/.test((event.target as HTMLElement).tagName)) return;
        if (event.ctrlKey || event.metaKey || event.altKey) return;
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
            <div
              role="status"
              className="sticky top-0 z-30 mx-auto mb-3 flex w-fit max-w-full flex-wrap items-center gap-3 border border-blue bg-blue-wash px-3 py-1.5"
            >
              Press the paragraph, heading or picture to which the link leads. Pages can be turned meanwhile.
              <Button kind="quiet" onClick={text.stopPointing}>
                Cancel
              </Button>
            </div>
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
              onLink={(chosen) => {
                const numbers = [...new Set(chosen.map((one) => one.number))];
                const linked = numbers.map((one): EpubPage => {
                  const { document } = pages[one - 1]!;
                  const fresh = chosen.filter((bare) => bare.number === one).map(linkOnBare);
                  return { ...document, links: [...document.links, ...fresh] };
                });
                change(linked, `Linked ${plural(chosen.length, "address", "addresses")}.`);
              }}
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
                <div
                  className="absolute z-30 w-[34rem] max-w-[calc(100vw-3rem)]"
                  style={{ top: line.top, left: Math.max(0, Math.min(line.left, pageWidth - 544)) }}
                >
                  <LinkLine
                    key={JSON.stringify(picksOf(leading).on)}
                    bookId={bookId}
                    destination={"link" in leading ? leading.link.destination : null}
                    words={picksOf(leading).words}
                    description={"link" in leading ? leading.link.description : null}
                    wordsLabel={null}
                    onTake={text.takeLine}
                    onLeave={() => setLeading(null)}
                  />
                  <div className="flex justify-end border-b-2 border-blue bg-paper px-3 pb-1">
                    <Button
                      kind="quiet"
                      className="!text-sm"
                      // Before the line is left for it, which closes the line.
                      onPointerDown={(event) => event.preventDefault()}
                      onClick={text.beginPointing}
                    >
                      Point at the place in the file
                    </Button>
                  </div>
                </div>
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
                        lost={link.href}
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
  const boxes = stretches.flatMap((stretch) => [...(laid?.map.range(...stretch)?.getClientRects() ?? [])]);
  return boxes.map(({ left, top, width, height }, i) => (
    <span
      key={i}
      aria-hidden
      className="pointer-events-none absolute border-b-2 border-[#1d4f8f] bg-[#1d4f8f]/10"
      style={{ left: left + 1, top: top + 1, width, height }}
    />
  ));
}
