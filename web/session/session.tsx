import { useQuery } from "@tanstack/react-query";
import { Navigate, Outlet, useLocation } from "react-router";
import { ApiError } from "../api/client";
import { sessionOf } from "../api/session-of";
import { Waiting } from "../parts/notice";
import { NotRead } from "../parts/not-read";

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
        <NotRead of={session} />
      </main>
    );
  }
  return <Outlet />;
}
