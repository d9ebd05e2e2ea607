import type { LinkUse } from "@vennet/core/manuscript/links";
import type { LinkChange } from "@vennet/core/manuscript/edit-links";
import { useBook } from "../../book-page";
import { JudgedLook, LookFields } from "../../destinations/look-fields";

/** How one link looks: as its kind does, as the text around it, or in a way of its own. */
export function LinkLookChoice({ use, onChange }: { use: LinkUse; onChange: (to: LinkChange) => void }) {
  const { looks } = useBook();
  const { asText, look, destination } = use;
  const { colour, underline, bold } = looks[destination.kind];
  const chosen = asText ? "text" : look ? "own" : "kind";
  const choices: Record<string, LinkChange> = {
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
          onChange={(event) => onChange(choices[event.target.value]!)}
          className="min-h-7 border border-hairline bg-paper px-1"
        >
          <option value="kind">that of its kind</option>
          <option value="text">as the text around it</option>
          <option value="own">its own</option>
        </select>
      </label>
      {chosen === "own" && look && (
        <div role="group" aria-label="Its own look" className="flex flex-wrap items-center gap-x-4 gap-y-1.5">
          <LookFields look={look} onChange={(to) => onChange({ look: { ...look, ...to } })} />
          <JudgedLook look={look} />
        </div>
      )}
    </div>
  );
}
