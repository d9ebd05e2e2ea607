import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { Waiting } from "../parts/notice";
import { fileSize, plural } from "../parts/wording";
import { NotRead } from "../parts/not-read";

/** From this share on an author is told, before the limit is met. */
const nearlyFull = 0.9;

const useUsage = () =>
  useQuery({ queryKey: keys.usage, queryFn: () => answerOf(api.GET("/api/account/usage")) });

/** What the account has of what it may have. */
export function Usage() {
  const usage = useUsage();
  if (!usage.data) return usage.error ? <NotRead of={usage} /> : <Waiting what="Counting" />;
  const { books, mostBooks, bytes, mostBytes } = usage.data;
  return (
    <ul className="flex flex-col gap-3">
      <Share
        name="Books"
        told={`${books.toLocaleString("en")} of ${mostBooks.toLocaleString("en")}`}
        share={books / mostBooks}
      />
      <Share
        name="Pictures, files and exports"
        told={`${fileSize(bytes)} of ${fileSize(mostBytes)}`}
        share={bytes / mostBytes}
      />
    </ul>
  );
}

function Share({ name, told, share }: { name: string; told: string; share: number }) {
  return (
    <li>
      <div className="flex flex-wrap justify-between gap-x-4">
        <span>{name}</span>
        <span>{told}</span>
      </div>
      <div aria-hidden className="mt-1 h-2 border border-edge">
        <div
          className={`h-full ${share >= nearlyFull ? "bg-red" : "bg-blue"}`}
          style={{ width: `${Math.min(100, share * 100)}%` }}
        />
      </div>
    </li>
  );
}

/** Tells an author whose account is nearly full, where they are before anything is refused. */
export function NearlyFull() {
  const { data } = useUsage();
  if (!data) return null;
  const { books, mostBooks, bytes, mostBytes } = data;
  const isFull = Math.max(books / mostBooks, bytes / mostBytes) >= nearlyFull;
  if (!isFull) return null;
  return (
    <p role="status" className="mt-4 border-l-4 border-red bg-red-wash px-3 py-2">
      Your account is nearly full: {books.toLocaleString("en")} of {plural(mostBooks, "book")},{" "}
      {fileSize(bytes)} of {fileSize(mostBytes)}.{" "}
      <Link to="/account" className="underline underline-offset-4">
        What takes room
      </Link>
    </p>
  );
}
