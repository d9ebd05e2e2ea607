import { useQueryClient, type Query } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useLocation } from "react-router";
import { ApiError } from "../api/client";
import { useSignedOut } from "../api/signed-out";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { useToldErrors } from "../parts/not-read";

// Milliseconds.
const whileAway = 5_000;

/**
 * Says that some of what the page shows could not be read, where it does not say so in its place; else marks, states and lists
 * would be missing without a word. While the server is away it is asked again by itself. Whoever was signed out meanwhile is told that instead.
 */
export function Unread() {
  const queries = useQueryClient();
  const told = useToldErrors();
  const failed = useFailed();
  const isAway = failed.some((error) => error instanceof ApiError && error.away);
  useEffect(() => {
    if (!isAway) return;
    // Only once it is back: what is asked for anew shows that it waits, and its failing is read out once more.
    const lookAgain = async (): Promise<void> => {
      if (await isBack()) await queries.refetchQueries({ predicate: hasFailed });
    };
    const timer = setInterval(() => void lookAgain(), whileAway);
    return () => clearInterval(timer);
  }, [isAway, queries]);
  const isSignedOut = useSignedOut();
  const here = useLocation();
  if (isSignedOut)
    return (
      <Problem
        action={
          <Link
            to="/sign-in"
            state={{ from: here.pathname + here.search }}
            className="inline-flex min-h-7 items-center px-1 underline underline-offset-4 hover:text-blue"
          >
            Sign in
          </Link>
        }
      >
        You are signed out, perhaps in another window. What you write here is kept in this browser, and saved
        when you have signed in.
      </Problem>
    );
  const untold = failed.filter((error) => !told.has(error));
  if (untold.length === 0) return null;
  return (
    <Problem
      action={
        <Button onClick={() => void queries.refetchQueries({ predicate: hasFailed })}>Try again</Button>
      }
    >
      Some of what this page shows could not be read.{" "}
      {[...new Set(untold.map(({ message }) => message))].join("\n")}
    </Problem>
  );
}

async function isBack(): Promise<boolean> {
  try {
    return (await fetch("/api/health")).ok;
  } catch {
    return false;
  }
}

function hasFailed(query: Query): boolean {
  return query.isActive() && query.state.status === "error";
}

/** Why what the page asks for could not be read. */
function useFailed(): Error[] {
  const cache = useQueryClient().getQueryCache();
  const [failed, setFailed] = useState<Error[]>([]);
  useEffect(() => {
    const look = (): void => {
      const now = cache
        .getAll()
        .filter(hasFailed)
        .map(({ state }) => state.error!);
      setFailed((before) =>
        before.length === now.length && before.every((error, i) => error === now[i]) ? before : now,
      );
    };
    look();
    return cache.subscribe(look);
  }, [cache]);
  return failed;
}
