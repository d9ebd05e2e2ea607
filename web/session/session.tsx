import { useQuery } from "@tanstack/react-query";
import { Navigate, Outlet, useLocation } from "react-router";
import { ApiError } from "../api/client";
import { sessionOf } from "../api/session-of";
import { Button } from "../parts/button";
import { Problem, Waiting } from "../parts/notice";

/** Lets only those in who have signed in; others are sent to do so, and then back. */
export function SignedInOnly() {
  const here = useLocation();
  const session = useQuery(sessionOf);
  if (session.isPending) return <Waiting what="Opening Vennet" />;
  if (session.error instanceof ApiError && session.error.status === 401) {
    return <Navigate to="/sign-in" state={{ from: here.pathname + here.search }} replace />;
  }
  if (session.error && !session.data) {
    return (
      <main className="mx-auto max-w-xl p-8">
        <Problem action={<Button onClick={() => void session.refetch()}>Try again</Button>}>
          {session.error.message}
        </Problem>
      </main>
    );
  }
  return <Outlet />;
}
