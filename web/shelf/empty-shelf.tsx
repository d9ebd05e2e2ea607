import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { Button } from "../parts/button";

/** What an author without a book sees: what Vennet does, and the three ways to begin. */
export function EmptyShelf({
  onBringIn,
  onBegin,
  onDemo,
}: {
  onBringIn: () => void;
  onBegin: () => void;
  onDemo: () => void;
}) {
  const health = useQuery({ queryKey: keys.health, queryFn: () => answerOf(api.GET("/api/health")) });
  return (
    <section aria-label="Ways to begin" className="border border-hairline bg-paper p-6 md:p-10">
      <p className="max-w-2xl font-serif text-lg leading-relaxed">
        Links are put to the words of a book, and each says in the margin where it leads. Every address is
        asked whether it still answers. What you export is read back, link by link, before it goes out.
      </p>
      <ul className="mt-8 grid gap-8 md:grid-cols-3">
        <Way
          drawing={<SheetWithMargin />}
          words="A manuscript that you have, with all its links."
          action={
            <Button kind="main" onClick={onBringIn}>
              Bring it in
            </Button>
          }
        />
        <Way
          drawing={<BlankSheet />}
          words="A book of which nothing is written yet."
          action={<Button onClick={onBegin}>Begin it</Button>}
        />
        {health.data?.demo && (
          <Way
            drawing={<CheckedSheet />}
            words="A walkers’ guide with sound links and broken ones, to look around in. You leave your account for it."
            action={<Button onClick={onDemo}>Open the demo book</Button>}
          />
        )}
      </ul>
    </section>
  );
}

function Way({ drawing, words, action }: { drawing: ReactNode; words: string; action: ReactNode }) {
  return (
    <li className="grid content-start justify-items-start gap-3">
      <svg aria-hidden viewBox="0 0 120 90" className="h-28 w-full max-w-44" fill="none" strokeWidth="1.5">
        {drawing}
      </svg>
      <p>{words}</p>
      {action}
    </li>
  );
}

const lines = [26, 36, 46, 56, 66];

function Sheet() {
  return <path d="M10 8H78V84H10Z" className="fill-desk stroke-edge" />;
}

function SheetWithMargin() {
  return (
    <>
      <Sheet />
      {lines.map((y) => (
        <path key={y} d={`M20 ${y}H68`} className="stroke-faint" />
      ))}
      <path d="M34 36H56M34 39H56" className="stroke-blue" />
      <path d="M68 36H82L90 28H112" className="stroke-blue" />
      <path d="M92 34H112" className="stroke-hairline" />
    </>
  );
}

function BlankSheet() {
  return (
    <>
      <Sheet />
      <path d="M20 26H40" className="stroke-faint" />
      <path d="M44 31 86 62 94 66 91 57 49 26Z" className="fill-paper stroke-blue" />
    </>
  );
}

function CheckedSheet() {
  return (
    <>
      <Sheet />
      {lines.map((y, i) => (
        <g key={y}>
          <path d={`M20 ${y}H62`} className="stroke-faint" />
          {i === 3 ? (
            <path d={`M90 ${y - 4}l8 8M98 ${y - 4}l-8 8`} className="stroke-red" />
          ) : (
            <path d={`M89 ${y}l3 4 7-9`} className="stroke-blue" />
          )}
        </g>
      ))}
    </>
  );
}
