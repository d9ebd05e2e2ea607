import type { ReactNode } from "react";

/** The page of somebody who is not signed in, with one thing to do. */
export function EntryFrame({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="flex min-h-dvh items-center justify-center p-6">
      <div className="flex w-full max-w-md flex-col gap-4 border border-hairline bg-paper p-8">
        <h1 className="font-serif text-2xl font-semibold">{title}</h1>
        {children}
      </div>
    </main>
  );
}
