import { useEffect } from "react";
import { useRouteError } from "react-router";
import { Button } from "../parts/button";

/** What stands in place of a page that failed: that nothing is lost, what went wrong, and the ways on. */
export function BrokenPage() {
  const error = useRouteError();
  useEffect(() => {
    document.title = "Vennet";
  }, []);
  return (
    <main className="mx-auto grid max-w-xl gap-4 p-8">
      <h1 className="font-serif text-2xl">This page cannot be shown</h1>
      <p>
        What you wrote is kept. Open the page again; if that does not help, tell whoever runs this Vennet what
        stands here:
      </p>
      <p
        role="alert"
        className="border-l-4 border-red bg-red-wash px-3 py-1.5 font-mono text-sm [overflow-wrap:anywhere]"
      >
        {error instanceof Error ? error.message : String(error)}
      </p>
      <p className="flex flex-wrap items-center gap-4">
        <Button kind="main" onClick={() => location.reload()}>
          Open it again
        </Button>
        <a href="/" className="underline decoration-edge underline-offset-4 hover:text-blue">
          To the Shelf
        </a>
      </p>
    </main>
  );
}
