import type { BookFinding } from "../api/client";

const headingsShown = 4;

/** What a linked page was called when it was linked, and what it is called now, beside each other. */
export function PageChange({ change }: { change: NonNullable<BookFinding["change"]> }) {
  return (
    <div className="my-1 grid gap-x-6 border-l-2 border-edge pl-3 text-sm sm:grid-cols-2">
      {(
        [
          ["When it was linked", change.then],
          ["Now", change.now],
        ] as const
      ).map(([when, { title, headings }]) => (
        <div key={when} className="min-w-0">
          <h3 className="text-faint">{when}</h3>
          <p className="font-serif [overflow-wrap:anywhere]">{title ?? "without a title"}</p>
          <ul>
            {headings
              .filter((heading) => heading !== title)
              .slice(0, headingsShown)
              .map((heading, i) => (
                <li key={i} className="truncate text-faint" title={heading}>
                  {heading}
                </li>
              ))}
          </ul>
        </div>
      ))}
    </div>
  );
}
