import { answerKey, nameDestination, shortDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import type { LinkInPlace } from "@vennet/core/finished/linked-in-place";
import { useState, type ReactNode } from "react";
import { KindMark } from "../destinations/kind-mark";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { StateMark } from "../parts/state-mark";
import type { LinkStates } from "../write/links/use-link-states";

/** What can be done to a link from its card, whatever the file is. */
export interface CardWork<Link> {
  select: (id: string | null) => void;
  describe: (link: Link, description: string | null) => void;
  /** Opens the link line for where it leads. */
  lead: (link: Link) => void;
  /** Lets the author point at the place to which it leads. */
  point: (link: Link) => void;
  /** Goes to where it leads, within the file. */
  goThere: (link: Link) => void;
  remove: (link: Link) => void;
}

/** What the margin says of a link of a page: where it leads and how it is; when it is active, how to change it. */
export function FinishedCard<Link extends LinkInPlace>({
  link,
  isActive,
  lost,
  names,
  states,
  work,
  said,
  fields,
  more,
}: {
  link: Link;
  isActive: boolean;
  /** Of a destination that is nowhere in the file its address, and what it may have meant. */
  lost?: { href: string | null; nearest: { name: string; lead: () => void } | null };
  names: DestinationNames;
  states: LinkStates;
  work: CardWork<Link>;
  /** Where its words are changed, in files in which they can be. */
  said?: ReactNode;
  /** What of it can be set besides. */
  fields?: ReactNode;
  /** What can be done to it besides. */
  more?: ReactNode;
}) {
  const { destination, words } = link;
  const asked = answerKey(destination);
  const known = asked === null ? null : states.get(asked);
  const whole = nameDestination(destination, names);
  const short = shortDestination(destination, names);
  const isLost = destination.kind === "place" && !names.places.has(destination.target);
  return (
    <div
      className={`bg-paper text-[0.83rem] leading-snug ${isActive ? "border-l-2 border-blue pb-2 pl-2.5" : "pl-3"}`}
    >
      <button
        type="button"
        aria-expanded={isActive}
        aria-label={`Link ${words ? `“${words}”` : "without words"} to ${isLost ? "a place that the file does not have" : whole}`}
        onClick={() => work.select(isActive ? null : link.id)}
        className="block w-full text-left"
      >
        <span className="flex items-baseline justify-between gap-2 text-faint">
          <KindMark kind={destination.kind} />
          {known && <StateMark state={known.state} />}
          {isLost && <StateMark state="broken" />}
        </span>
        <span className={`block font-semibold ${isActive ? "[overflow-wrap:anywhere]" : "truncate"}`}>
          {isLost ? "Nowhere in the file" : short}
        </span>
        <span className="block truncate text-faint">{words || "No words beneath"}</span>
      </button>
      {isActive && (
        <div className="mt-1.5 grid gap-1.5 [&_button]:text-[0.83rem]">
          {whole !== short && !isLost && (
            <p
              tabIndex={0}
              className="max-h-24 overflow-y-auto font-mono text-[0.78rem] [overflow-wrap:anywhere]"
            >
              {whole}
            </p>
          )}
          {known && <p>{known.reason}</p>}
          {isLost && lost?.href && (
            <p>
              The file has no such place: <span className="font-mono text-[0.78rem]">{lost.href}</span>
            </p>
          )}
          {isLost && lost?.nearest && (
            <Button kind="quiet" className="-ml-1 justify-self-start" onClick={lost.nearest.lead}>
              Lead it to “{lost.nearest.name}”
            </Button>
          )}
          {said}
          <Description key={`${link.id} ${link.description}`} link={link} work={work} />
          {fields}
          <div className="flex flex-wrap gap-x-3">
            <Button kind="quiet" className="-ml-1" onClick={() => work.lead(link)}>
              Change where it leads
            </Button>
            <Button kind="quiet" className="-ml-1" onClick={() => work.point(link)}>
              Point at the place
            </Button>
            {destination.kind === "place" && !isLost && (
              <Button kind="quiet" className="-ml-1" onClick={() => work.goThere(link)}>
                Go there
              </Button>
            )}
            {more}
            <Button kind="quiet" className="-ml-1" onClick={() => work.remove(link)}>
              Remove link
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}

function Description<Link extends LinkInPlace>({ link, work }: { link: Link; work: CardWork<Link> }) {
  const [text, setText] = useState(link.description ?? "");
  const keep = (): void => {
    const next = text.trim() || null;
    if (next !== link.description) work.describe(link, next);
  };
  return (
    <div>
      <Field
        label="Description"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key === "Enter") keep();
          if (event.key === "Escape") setText(link.description ?? "");
        }}
      />
      {text === "" && link.words !== "" && (
        <Button kind="quiet" className="-ml-1" onClick={() => work.describe(link, link.words)}>
          Take the words beneath
        </Button>
      )}
    </div>
  );
}
