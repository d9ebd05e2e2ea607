import { useQueryClient } from "@tanstack/react-query";
import { Moon, Sun } from "lucide-react";
import type { ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { answerOf, api, type Book } from "../api/client";
import { Button } from "../parts/button";
import { Keys } from "./keys";
import { useTheme } from "./theme";

const stages = [
  ["write", "Write"],
  ["links", "Links"],
  ["checks", "Checks"],
  ["read", "Read"],
  ["export", "Export"],
] as const;

/** The head of every page: where one is, the stages of the book, and what belongs to the reader of the screen. */
export function PageFrame({
  book,
  aside,
  children,
}: {
  book?: Book;
  aside?: ReactNode;
  children: ReactNode;
}) {
  return (
    <div className="flex h-dvh flex-col overflow-clip">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2"
      >
        To the content
      </a>
      <header className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-hairline bg-paper px-5 py-1.5">
        <div className="flex min-w-0 items-baseline gap-2">
          <Link to="/" className="shrink-0 text-faint underline-offset-4 hover:text-blue hover:underline">
            Shelf
          </Link>
          {book && (
            <>
              <span aria-hidden className="text-edge">
                /
              </span>
              <span className="max-w-[22rem] truncate font-serif text-[1.05rem]" title={book.title}>
                {book.title}
              </span>
            </>
          )}
        </div>
        {book && (
          <nav aria-label="Stages">
            <ol className="flex items-baseline">
              {stages.map(([path, word], i) => (
                <li key={path} className="flex items-baseline">
                  {i > 0 && (
                    <span aria-hidden className="mx-2 text-edge">
                      ·
                    </span>
                  )}
                  <NavLink
                    to={`/books/${book.id}/${path}`}
                    className={({ isActive }) =>
                      `py-1 underline-offset-[0.4rem] hover:text-blue ${isActive ? "font-semibold text-blue underline decoration-2" : ""}`
                    }
                  >
                    {word}
                  </NavLink>
                </li>
              ))}
            </ol>
          </nav>
        )}
        <div className="ml-auto flex items-center gap-2">
          {aside}
          <ThemeButton />
          <Keys />
          <Link
            to="/account"
            className="px-1 text-[0.93rem] underline decoration-edge underline-offset-4 hover:text-blue hover:decoration-blue"
          >
            Account
          </Link>
          <SignOut />
        </div>
      </header>
      <main id="main" className="min-h-0 grow">
        {children}
      </main>
    </div>
  );
}

function ThemeButton() {
  const { theme, toggle } = useTheme();
  const Icon = theme === "light" ? Moon : Sun;
  return (
    <Button kind="quiet" onClick={toggle} aria-label={theme === "light" ? "Dark paper" : "Light paper"}>
      <Icon aria-hidden size={16} />
    </Button>
  );
}

function SignOut() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  return (
    <Button
      kind="quiet"
      onClick={() =>
        void answerOf(api.DELETE("/api/session")).then(() => {
          queries.clear();
          void navigate("/sign-in");
        })
      }
    >
      Sign out
    </Button>
  );
}
