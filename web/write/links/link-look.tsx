import type { LinkAttrs } from "@vennet/core/manuscript/attributes";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { useState } from "react";
import { useBook } from "../../book-page";
import { JudgedLook, LookFields } from "../../destinations/look-fields";

type Look = Pick<LinkAttrs, "asText" | "look">;

/** How one link looks: as its kind does, as the text around it, or in a way of its own. */
export function LinkLookChoice({ use, onChange }: { use: LinkUse; onChange: (to: Look) => void }) {
  const { looks } = useBook();
  const [{ asText, look }, choose] = useChosenLook(use, onChange);
  const { colour, underline, bold } = looks[use.destination.kind];
  const chosen = asText ? "text" : look ? "own" : "kind";
  const choices: Record<string, Look> = {
    kind: { asText: false, look: null },
    text: { asText: true, look: null },
    own: { asText: false, look: { colour, underline, bold } },
  };
  return (
    <div className="col-span-full grid gap-1.5">
      <label className="flex items-center gap-1.5">
        Look
        <select
          value={chosen}
          onChange={(event) => choose(choices[event.target.value]!)}
          className="min-h-7 border border-hairline bg-paper px-1"
        >
          <option value="kind">default</option>
          <option value="text">as the text around it</option>
          <option value="own">its own</option>
        </select>
      </label>
      {chosen === "own" && look && (
        <div role="group" aria-label="Its own look" className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
          <LookFields look={look} onChange={(to) => choose({ asText: false, look: { ...look, ...to } })} />
          <JudgedLook look={look} />
        </div>
      )}
    </div>
  );
}

/**
 * What is chosen, at once: the card hears of a change of the text a moment later, and what is chosen in between must not
 * be built on what was.
 */
function useChosenLook({ asText, look }: Look, onChange: (to: Look) => void): [Look, (to: Look) => void] {
  const given = JSON.stringify({ asText, look });
  const [state, setState] = useState({ given, chosen: { asText, look }, onTheWay: [] as string[] });
  if (state.given !== given) {
    const at = state.onTheWay.indexOf(given);
    // Changed elsewhere, as by undo; or what was chosen here has arrived.
    if (at === -1) setState({ given, chosen: { asText, look }, onTheWay: [] });
    else setState({ ...state, given, onTheWay: state.onTheWay.slice(at + 1) });
  }
  const choose = (to: Look): void => {
    setState((now) => ({ ...now, chosen: to, onTheWay: [...now.onTheWay, JSON.stringify(to)] }));
    onChange(to);
  };
  return [state.chosen, choose];
}
