import type { LinkUse } from "@vennet/core/manuscript/links";
import { Button } from "../../parts/button";
import { plural } from "../../parts/wording";
import type { CardContext } from "./card-context";
import { MarginCard } from "./margin-card";

/** In a narrow window there is no margin: the card of the link at the cursor stands over the text. */
export function LinkStrip({
  count,
  active,
  context,
  onStep,
}: {
  count: number;
  active: LinkUse | null;
  context: CardContext;
  onStep: (step: 1 | -1) => void;
}) {
  return (
    <div
      role="group"
      aria-label="Links"
      className="sticky top-10 z-20 border-b border-hairline bg-paper px-4 py-2"
    >
      <div className="flex items-center gap-3 text-sm text-faint">
        <span className="mr-auto">{plural(count, "link")} in this chapter</span>
        <Button kind="quiet" disabled={count === 0} onClick={() => onStep(-1)}>
          Previous link
        </Button>
        <Button kind="quiet" disabled={count === 0} onClick={() => onStep(1)}>
          Next link
        </Button>
      </div>
      {active && <MarginCard use={active} active context={context} />}
    </div>
  );
}
