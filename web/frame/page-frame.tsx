import { useQueryClient } from "@tanstack/react-query";
import { Menu, Moon, Sun } from "lucide-react";
import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link, NavLink, useNavigate } from "react-router";
import { answerOf, api, ApiError, type Book } from "../api/client";
import { Button } from "../parts/button";
import { useRoomFor } from "../parts/use-window";
import { useHistory } from "./history";
import { Keys } from "./keys";
import { Unread } from "./unread";
import { useTheme } from "./theme";

const stages = [
  ["write", "Write"],
  ["links", "Links"],
  ["checks", "Checks"],
  ["read", "Read"],
  ["export", "Export"],
] as const;

/** What the stages of a finished file are called, where it is other than with books. */
const ofFinished: Readonly<Record<string, string>> = { write: "Pages", export: "Save" };

/**
 * The head of every page: where one is, the stages of the book, and what belongs to the reader of the screen. In a
 * narrow window it is one row, and what is seldom wanted is in a menu.
 */
export function PageFrame({
  book,
  before,
  aside,
  state,
  children,
}: {
  book?: Book;
  /** What stands before the stages in every window. */
  before?: ReactNode;
  /** What belongs to the page; in the menu where there is one. */
  aside?: ReactNode;
  /** How the page's work stands; seen in every window. */
  state?: ReactNode;
  children: ReactNode;
}) {
  const isWide = useRoomFor("head");
  return (
    <div className="flex h-dvh flex-col overflow-clip">
      <a
        href="#main"
        className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-paper focus:p-2"
      >
        To the content
      </a>
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-hairline bg-paper px-3 py-1 min-[1100px]:gap-x-6 min-[1100px]:px-5 min-[1100px]:py-1.5">
        {before}
        <div className={`flex min-w-0 items-baseline gap-2 ${book ? "max-[700px]:hidden" : ""}`}>
          <ToShelf />
          {book && (
            <>
              <span aria-hidden className="text-edge">
                /
              </span>
              <span
                className="max-w-[22rem] truncate font-serif text-[1.05rem] max-[1100px]:max-w-48"
                title={book.title}
              >
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
                    <span aria-hidden className="mx-2 text-edge max-[480px]:mx-1">
                      ·
                    </span>
                  )}
                  <NavLink
                    to={`/books/${book.id}/${path}`}
                    className={({ isActive }) =>
                      `py-1 underline-offset-[0.4rem] hover:text-blue ${isActive ? "font-semibold text-blue underline decoration-2" : ""}`
                    }
                  >
                    {(book.finished && ofFinished[path]) ?? word}
                  </NavLink>
                </li>
              ))}
            </ol>
          </nav>
        )}
        <div className="ml-auto flex items-center gap-2">
          {isWide && aside}
          {state}
          {isWide ? (
            <>
              <ThemeButton />
              <Keys />
              <ToAccount />
              <SignOut />
            </>
          ) : (
            <>
              <span className="max-[480px]:hidden">
                <Keys />
              </span>
              <FrameMenu book={book} aside={aside} />
            </>
          )}
        </div>
      </header>
      <Unread />
      <main id="main" className="min-h-0 grow">
        {children}
      </main>
    </div>
  );
}

function FrameMenu({ book, aside }: { book: Book | undefined; aside: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <Button kind="quiet" aria-label="Menu" data-tip="Menu">
          <Menu aria-hidden size={18} />
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          aria-label="Menu"
          collisionPadding={8}
          className="z-50 grid max-h-(--radix-popover-content-available-height) max-w-[18rem] justify-items-start gap-2 overflow-y-auto border border-ink bg-paper p-3 shadow-md"
        >
          {book && <p className="font-serif [overflow-wrap:anywhere]">{book.title}</p>}
          {aside}
          <ToShelf />
          <ToAccount />
          <ThemeButton withWords />
          <SignOut />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function ToShelf() {
  return (
    <Link to="/" className="shrink-0 px-1 text-faint underline-offset-4 hover:text-blue hover:underline">
      Shelf
    </Link>
  );
}

function ToAccount() {
  return (
    <Link
      to="/account"
      className="px-1 text-[0.93rem] underline decoration-edge underline-offset-4 hover:text-blue hover:decoration-blue"
    >
      Account
    </Link>
  );
}

function ThemeButton({ withWords = false }: { withWords?: boolean }) {
  const { theme, toggle } = useTheme();
  const Icon = theme === "light" ? Moon : Sun;
  const words = theme === "light" ? "Dark paper" : "Light paper";
  return (
    <Button kind="quiet" onClick={toggle} aria-label={words} data-tip={withWords ? undefined : words}>
      <Icon aria-hidden size={16} />
      {withWords && words}
    </Button>
  );
}

function SignOut() {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const signOut = async (): Promise<void> => {
    try {
      await answerOf(api.DELETE("/api/session"));
    } catch (error) {
      // Whoever was signed out in another window is where they want to be.
      if (!(error instanceof ApiError && error.status === 401)) throw error;
    }
    queries.clear();
    useHistory.setState({ done: [], undone: [] });
    await navigate("/sign-in");
  };
  return (
    <Button kind="quiet" onClick={() => void signOut()}>
      Sign out
    </Button>
  );
}
