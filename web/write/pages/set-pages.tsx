import { ChevronLeft, ChevronRight } from "lucide-react";
import type { EditorState } from "prosemirror-state";
import { useDeferredValue, useEffect, useMemo, useState } from "react";
import { Button } from "../../parts/button";
import { Problem, Waiting } from "../../parts/notice";
import { landingOf } from "../../read/open-pdf";
import { PdfPage, type PageLink } from "../../read/pdf-page";
import { useSetPages, type SetPages } from "./use-set-pages";

/** The pages of the open chapter as the PDF will have them, at the page and the line where the cursor is. */
export function SetPagesColumn({
  bookId,
  chapterId,
  state,
}: {
  bookId: string;
  chapterId: string;
  state: EditorState;
}) {
  const { pages, isSetting, problem } = useSetPages(bookId, chapterId, state.doc);
  const [page, setPage] = useState(1);
  const [pressed, setPressed] = useState<PageLink | null>(null);
  // The place of the cursor may come a moment after the key.
  const { doc, selection } = useDeferredValue(state);
  const cursor = useMemo(
    () => (pages ? cursorIn(pages, doc, selection.$head) : null),
    [pages, doc, selection],
  );
  const cursorPage = cursor?.page ?? null;
  useEffect(() => {
    if (cursorPage !== null) setPage(cursorPage);
  }, [cursorPage, cursor]);
  const count = pages?.pdf.document.numPages ?? 1;
  const shown = Math.min(page, count);
  const follow = async (link: PageLink): Promise<void> => {
    setPressed(link);
    if (link.address !== null || !pages) return;
    const landing = await landingOf(pages.pdf.document, link.dest);
    if (landing) setPage(landing.page);
  };
  return (
    <section aria-label="Pages beside the text" className="flex h-full min-h-0 flex-col">
      <div className="flex flex-wrap items-center gap-x-2 border-b border-hairline px-3 py-1">
        <Button
          kind="quiet"
          aria-label="Page before"
          disabled={shown === 1}
          onClick={() => setPage(shown - 1)}
        >
          <ChevronLeft aria-hidden size={17} />
        </Button>
        <span className="tabular-nums">
          Page {shown} of {count}
        </span>
        <Button
          kind="quiet"
          aria-label="Next page"
          disabled={shown === count}
          onClick={() => setPage(shown + 1)}
        >
          <ChevronRight aria-hidden size={17} />
        </Button>
        <span role="status" className="ml-auto text-sm text-faint">
          {pages?.doc === state.doc ? "As the text is now" : isSetting ? "Setting the pages" : ""}
        </span>
      </div>
      {problem && <Problem>{problem}</Problem>}
      <div tabIndex={0} role="region" aria-label="The page" className="min-h-0 grow overflow-auto p-3">
        {pages ? (
          <PdfPage
            document={pages.pdf.document}
            number={shown}
            scale={scaleOf(pages)}
            outlined={false}
            mark={cursor?.page === shown ? cursor.y : null}
            onFollow={(link) => void follow(link)}
          />
        ) : (
          !problem && <Waiting what="Setting the pages" />
        )}
      </div>
      {pressed && (
        <div className="border-t border-hairline bg-paper p-3 text-sm">
          <p className="font-serif">{pressed.name}</p>
          {pressed.address !== null && (
            <p className="font-mono text-[0.85rem] [overflow-wrap:anywhere]">{pressed.address}</p>
          )}
          {pressed.address === null && pressed.dest === null && <p>It leads out of this chapter.</p>}
        </div>
      )}
    </section>
  );
}

/** In px; the column is as wide as this leaves room for. */
const pageWidth = 372;

function scaleOf({ pdf }: SetPages): number {
  return pageWidth / pdf.width;
}

type Head = EditorState["selection"]["$head"];

/** The page, from 1, and the height of the line, in points from the page's foot, at which the cursor is. */
function cursorIn(
  { text: { pieces, searched } }: SetPages,
  doc: EditorState["doc"],
  $head: Head,
): { page: number; y: number } | null {
  const { parent, parentOffset } = $head;
  const blank = " ";
  const before = parent.textBetween(0, parentOffset, blank, blank);
  const after = parent.textBetween(parentOffset, parent.content.size, blank, blank);
  const found = searched.find(before, after, $head.pos / doc.content.size);
  if (!found) return null;
  const { y, height } = pieces[found.page]![found.piece]!;
  return { page: found.page + 1, y: y + height };
}
