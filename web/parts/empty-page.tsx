import type { ReactNode } from "react";
import { Link } from "react-router";

/** A page that has nothing to show yet: what it is for, and the one next step. */
export function EmptyPage({ children, next, to }: { children: ReactNode; next: string; to: string }) {
  return (
    <div className="mx-auto mt-4 max-w-3xl border border-hairline bg-paper p-6 md:p-10">
      <p className="font-serif text-lg">{children}</p>
      <Link
        to={to}
        className="mt-5 inline-flex min-h-7 items-center border border-blue bg-blue px-3 py-0.5 text-[0.93rem] text-paper hover:brightness-110"
      >
        {next}
      </Link>
    </div>
  );
}
