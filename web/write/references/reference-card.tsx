import type { LinkUse } from "@vennet/core/manuscript/links";
import type { CrossReference } from "@vennet/core/manuscript/attributes";
import { Button } from "../../parts/button";
import type { CardActions } from "../links/card-context";
import type { ReferenceInfo } from "./reference-forms";

/** What a cross-reference says of its target, each form with the words that it has now. */
export function ReferenceCard({
  use,
  info,
  actions,
}: {
  use: LinkUse;
  info: ReferenceInfo | null;
  actions: CardActions;
}) {
  const select = "min-h-7 w-full border border-hairline bg-paper px-1";
  return (
    <div className="mt-1.5 grid gap-1 @lg:grid-cols-3 @lg:gap-4 [&_button]:text-[0.83rem]">
      {info && (
        <label className="grid">
          <span className="text-sm text-faint">Says</span>
          <select
            value={info.form}
            onChange={(event) => actions.say(use, { form: event.target.value as CrossReference["form"] })}
            className={select}
          >
            {info.sayings.map(({ form, name, words, isGap }) => (
              <option key={form} value={form}>
                {`${name}: ${isGap ? "nothing, for now" : words}`}
              </option>
            ))}
          </select>
        </label>
      )}
      {info && (info.form === "page" || info.form === "page-and-text") && (
        <label className="grid">
          <span className="text-sm text-faint">Without pages</span>
          <select
            value={info.fallback}
            onChange={(event) =>
              actions.say(use, { fallback: event.target.value as CrossReference["fallback"] })
            }
            className={select}
          >
            <option value="text">its words</option>
            <option value="number">its number</option>
          </select>
        </label>
      )}
      <div className="col-span-full flex flex-wrap gap-x-3">
        <Button kind="quiet" className="-ml-1" onClick={() => actions.follow(use)}>
          Follow
        </Button>
        <Button kind="quiet" onClick={() => actions.openLine(use)}>
          Another place
        </Button>
        <Button kind="quiet" onClick={() => actions.remove(use)}>
          Delete it
        </Button>
      </div>
    </div>
  );
}
