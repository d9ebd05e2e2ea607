import type { LinkUse } from "@vennet/core/manuscript/links";
import { Button } from "../../parts/button";
import { plural } from "../../parts/wording";
import { stateOf } from "./margin";
import { MarginCard, type CardActions, type CardState } from "./margin-card";

/** In a narrow window there is no margin: the card of the link at the cursor stands over the text. */
export function LinkStrip({
  uses,
  active,
  states,
  following,
  actions,
  onStep,
}: {
  uses: LinkUse[];
  active: LinkUse | null;
  states: Map<string, CardState>;
  following: string | null;
  actions: CardActions;
  onStep: (step: 1 | -1) => void;
}) {
  return (
    <div
      role="group"
      aria-label="Links"
      className="sticky top-10 z-20 border-b border-hairline bg-paper px-4 py-2"
    >
      <div className="flex items-center gap-3 text-sm text-faint">
        <span className="mr-auto">{plural(uses.length, "link")} in this chapter</span>
        <Button kind="quiet" disabled={uses.length === 0} onClick={() => onStep(-1)}>
          Previous link
        </Button>
        <Button kind="quiet" disabled={uses.length === 0} onClick={() => onStep(1)}>
          Next link
        </Button>
      </div>
      {active && (
        <MarginCard
          use={active}
          known={stateOf(active, states)}
          active
          following={following === active.id}
          actions={actions}
        />
      )}
    </div>
  );
}
