import type { PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import type { PDFDocumentProxy } from "pdfjs-dist";
import { useMemo, useState } from "react";
import { ColumnChoice } from "../../parts/column-choice";
import { PageThumbnails } from "../../read/page-thumbnails";
import type { KeptPage } from "../use-pages";

const ways = [
  ["pages", "Pages"],
  ["outline", "Outline"],
] as const;

/** The column by which one goes through a file: its pages in small, or the entries of its outline where it has one. */
export function WaysThrough({
  file,
  pages,
  current,
  onGoTo,
}: {
  file: PDFDocumentProxy;
  pages: readonly KeptPage<PdfPage>[];
  current: number;
  onGoTo: (page: number) => void;
}) {
  const [way, setWay] = useState<(typeof ways)[number][0]>("pages");
  const entries = useMemo(
    () =>
      pages
        .flatMap(({ document }) =>
          document.places.flatMap((place) =>
            place.of === "outline" ? [{ ...place, number: document.number }] : [],
          ),
        )
        .sort((a, b) => orderOf(a.id) - orderOf(b.id)),
    [pages],
  );
  return (
    <nav
      aria-label="Ways through the file"
      className="flex min-h-0 flex-col border-r border-hairline bg-paper max-lg:hidden"
    >
      {entries.length > 0 && (
        <ColumnChoice value={way} choices={ways} onChange={setWay} className="px-3 pt-1.5" />
      )}
      <div className="min-h-0 grow overflow-y-auto p-2">
        {way === "pages" || entries.length === 0 ? (
          <PageThumbnails document={file} current={current} onGoTo={onGoTo} />
        ) : (
          <ul className="grid gap-0.5 text-sm">
            {entries.map(({ id, name, level, number }) => (
              <li key={id} style={{ paddingLeft: `${((level ?? 1) - 1) * 0.6}rem` }}>
                <button
                  type="button"
                  aria-current={number === current ? "page" : undefined}
                  onClick={() => onGoTo(number)}
                  className="min-h-6 text-left [overflow-wrap:anywhere] hover:text-blue hover:underline aria-[current]:font-semibold"
                >
                  {name}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
    </nav>
  );
}

/** Entries have their number in the outline in their ids. */
function orderOf(id: string): number {
  return Number(id.slice(id.lastIndexOf("-") + 1));
}
