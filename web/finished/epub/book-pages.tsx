import type { EpubPage } from "@vennet/core/finished/epub/epub-page";
import type { KeptPage } from "../use-pages";

/** The column by which one goes through an e-book: its pages with how many links each has. */
export function BookPages({
  pages,
  current,
  onGoTo,
}: {
  pages: readonly KeptPage<EpubPage>[];
  current: number;
  onGoTo: (page: number) => void;
}) {
  return (
    <nav
      aria-label="Ways through the file"
      className="min-h-0 overflow-y-auto border-r border-hairline bg-paper p-2 max-lg:hidden"
    >
      <ol className="grid gap-0.5 text-sm">
        {pages.map(({ document: { number, title, path, links, isInOrder } }) => (
          <li key={number}>
            <button
              type="button"
              title={path}
              aria-current={number === current ? "page" : undefined}
              onClick={() => onGoTo(number)}
              className="flex min-h-6 w-full items-baseline justify-between gap-2 text-left hover:text-blue hover:underline aria-[current]:font-semibold"
            >
              <span className={`min-w-0 [overflow-wrap:anywhere] ${isInOrder ? "" : "italic"}`}>{title}</span>
              {links.length > 0 && (
                <span className="shrink-0 text-faint tabular-nums" aria-label={`${links.length} links`}>
                  {links.length}
                </span>
              )}
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}
