import { Button } from "../parts/button";
import { plural } from "../parts/wording";

/** A link of a page that stays as the file has it. */
export interface StayingLink<From> {
  from: From;
  words: string;
  why: string;
}

/** Links of the file that stay as they are, with the reason, and the way to give them another destination. */
export function UntouchedLinks<From extends string | number>({
  links,
  canReplace,
  onReplace,
}: {
  links: readonly StayingLink<From>[];
  /** Whether one can be led elsewhere. */
  canReplace: (from: From) => boolean;
  onReplace: (from: From) => void;
}) {
  return (
    <section
      aria-labelledby="untouched"
      className="w-[17rem] border-l-2 border-red bg-paper px-3 py-2 text-sm"
    >
      <h2 id="untouched" className="font-semibold">
        {plural(links.length, "link stays", "links stay")} as the file has it
      </h2>
      <ul className="mt-1 grid gap-2">
        {links.map(({ from, words, why }) => (
          <li key={from} className="[overflow-wrap:anywhere]">
            <span className="block font-serif">{words || "No words beneath"}</span>
            <span className="block text-faint">{why}</span>
            {canReplace(from) && (
              <Button kind="quiet" className="-ml-1 !text-sm" onClick={() => onReplace(from)}>
                Lead it elsewhere
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
