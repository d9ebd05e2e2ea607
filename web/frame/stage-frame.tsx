import type { ReactNode } from "react";
import { NavLink } from "react-router";
import { useBook } from "../book-page";
import { PageFrame } from "./page-frame";

/** The frame of a stage that has several views, with the way from one to the other. */
export function StageFrame({
  name,
  path,
  views,
  children,
}: {
  name: string;
  path: string;
  /** The end of each view's address, with its words. */
  views: readonly (readonly [end: string, words: string])[];
  children: ReactNode;
}) {
  const book = useBook();
  return (
    <PageFrame book={book}>
      <div className="flex h-full flex-col">
        <nav aria-label={name} className="shrink-0 overflow-x-auto border-b border-hairline px-5 py-1">
          <ul className="flex gap-x-5 whitespace-nowrap md:flex-wrap">
            {views.map(([end, words]) => (
              <li key={end}>
                <NavLink
                  end
                  to={`/books/${book.id}/${path}${end}`}
                  className={({ isActive }) =>
                    `underline-offset-4 hover:text-blue ${isActive ? "font-semibold text-blue underline" : ""}`
                  }
                >
                  {words}
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
        <div className="min-h-0 grow">{children}</div>
      </div>
    </PageFrame>
  );
}
