import { writeDestination } from "@vennet/core/destination/destination";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { ChapterMentions } from "../../api/client";
import { WordsAround } from "../../parts/words-around";

/** One mention in its line of text, with its tick; where it is linked already it says so. */
export function MentionRow({
  mention,
  ticked,
  onTick,
}: {
  mention: ChapterMentions["mentions"][number];
  ticked: boolean;
  onTick: (ticked: boolean) => void;
}) {
  const { before, text, after, inHeading, link } = mention;
  return (
    <li>
      <label className="flex items-baseline gap-3 py-0.5 hover:bg-blue-wash">
        <input
          type="checkbox"
          className="size-4 shrink-0 translate-y-0.5 accent-blue"
          checked={ticked}
          onChange={(event) => onTick(event.target.checked)}
        />
        <span className="min-w-0 font-serif [overflow-wrap:anywhere]">
          <WordsAround before={before} after={after}>
            <mark className="bg-blue-wash font-semibold text-ink">{text}</mark>
          </WordsAround>
        </span>
        <span className="ml-auto shrink-0 text-sm text-faint">
          {inHeading && "heading"}
          {inHeading && link && ", "}
          {link && (
            <span title={writeDestination(link.destination as unknown as Destination)}>linked already</span>
          )}
        </span>
      </label>
    </li>
  );
}
