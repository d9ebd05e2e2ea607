import type { PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { Button } from "../parts/button";
import { plural } from "../parts/wording";

/** Links of the file that stay as they are, with the reason, and the way to give them another destination. */
export function UntouchedLinks({ page, onReplace }: { page: PdfPage; onReplace: (from: string) => void }) {
  return (
    <section
      aria-labelledby="untouched"
      className="w-[17rem] border-l-2 border-red bg-paper px-3 py-2 text-sm"
    >
      <h2 id="untouched" className="font-semibold">
        {plural(page.untouched.length, "link stays", "links stay")} as the file has it
      </h2>
      <ul className="mt-1 grid gap-2">
        {page.untouched.map(({ from, words, areas, why }) => (
          <li key={from} className="[overflow-wrap:anywhere]">
            <span className="block font-serif">{words || "No words beneath"}</span>
            <span className="block text-faint">{why}</span>
            {areas && (
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
