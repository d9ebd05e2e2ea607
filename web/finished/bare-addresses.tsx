import { useEffect, useState } from "react";
import { Button } from "../parts/button";
import { Problem } from "../parts/notice";
import { Progress } from "../parts/progress";
import { ShowMore, useFirstOf } from "../parts/show-more";
import { plural } from "../parts/wording";

/** An address that stands in the text of a file and is no link. */
export interface BareAddress {
  /** Of its page, from 1. */
  number: number;
  /** The page as readers know it. */
  where: string;
  words: string;
  address: string;
}

/** Looks through a file, page by page, telling what it finds and how many pages it has looked through. */
export type LookForBare<Bare extends BareAddress> = (
  tell: (found: readonly Bare[], pages: number) => void,
  isLeft: () => boolean,
) => Promise<void>;

/** Addresses that stand in the text of a file and are no links: offered together, each with a tick. */
export function BareAddresses<Bare extends BareAddress>({
  pages,
  look,
  onLink,
  onClose,
}: {
  /** How many pages there are. */
  pages: number;
  look: LookForBare<Bare>;
  onLink: (chosen: readonly Bare[]) => void;
  onClose: () => void;
}) {
  const [found, setFound] = useState<readonly Bare[]>([]);
  const [done, setDone] = useState(0);
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set());
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    let isLeft = false;
    look(
      (bare, looked) => {
        if (isLeft) return;
        if (bare.length > 0) setFound((all) => [...all, ...bare]);
        setDone(looked);
      },
      () => isLeft,
    ).catch((error: unknown) => !isLeft && setProblem((error as Error).message));
    return () => {
      isLeft = true;
    };
    // It looks once; what is linked from here is taken off the list by closing it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const chosen = found.filter((_, i) => !left.has(i));
  const link = (): void => {
    onLink(chosen);
    onClose();
  };
  const isDone = done === pages;
  const first = useFirstOf(found);
  return (
    <section
      aria-labelledby="bare-addresses"
      className="mx-auto mb-4 max-w-3xl border border-hairline bg-paper p-4"
    >
      <div className="flex flex-wrap items-baseline gap-3">
        <h2 id="bare-addresses" className="mr-auto font-serif text-xl font-semibold">
          Addresses without a link
        </h2>
        <Button kind="quiet" onClick={onClose}>
          Close
        </Button>
      </div>
      {!isDone && !problem && <Progress label="Looking through the pages" done={done} total={pages} />}
      {problem && <Problem>{problem}</Problem>}
      {isDone && found.length === 0 && (
        <p role="status" className="mt-2">
          Every address that stands in the text is a link already.
        </p>
      )}
      {found.length > 0 && (
        <div className="mt-2 max-h-72 overflow-y-auto">
          <ul>
            {first.shown.map(({ where, words, address }, i) => (
              <li key={i}>
                <label className="flex min-h-7 items-baseline gap-2">
                  <input
                    type="checkbox"
                    className="size-4 shrink-0 self-center accent-blue"
                    checked={!left.has(i)}
                    onChange={() => {
                      const next = new Set(left);
                      if (!next.delete(i)) next.add(i);
                      setLeft(next);
                    }}
                  />
                  <span className="min-w-0 grow font-mono text-[0.85rem] [overflow-wrap:anywhere]">
                    {words}
                    {words !== address && <span className="text-faint"> → {address}</span>}
                  </span>
                  <span className="line-clamp-2 max-w-[35%] shrink-0 text-sm text-faint">{where}</span>
                </label>
              </li>
            ))}
          </ul>
          <ShowMore of={first} />
        </div>
      )}
      {found.length > 0 && (
        <Button kind="main" className="mt-3" disabled={chosen.length === 0} onClick={link}>
          Link {plural(chosen.length, "address", "addresses")}
        </Button>
      )}
    </section>
  );
}
