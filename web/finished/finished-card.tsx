import { answerKey, nameDestination, shortDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import type { PdfLink } from "@vennet/core/finished/pdf/pdf-page";
import { noFrame, type Frame, type FrameLine } from "@vennet/core/manuscript/hotspot";
import { useState } from "react";
import { KindMark } from "../destinations/kind-mark";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { StateMark } from "../parts/state-mark";
import type { LinkStates } from "../write/links/use-link-states";

/** What can be done to a link from its card. */
export interface CardWork {
  select: (id: string | null) => void;
  describe: (link: PdfLink, description: string | null) => void;
  frame: (link: PdfLink, frame: Frame) => void;
  /** Opens the link line for where it leads. */
  lead: (link: PdfLink) => void;
  /** Lets the author point at the place to which it leads. */
  point: (link: PdfLink) => void;
  /** Goes to where it leads, within the file. */
  goThere: (link: PdfLink) => void;
  copy: (link: PdfLink, pages: number) => void;
  remove: (link: PdfLink) => void;
}

/** What the margin says of a link of a page: where it leads and how it is; when it is active, how to change it. */
export function FinishedCard({
  link,
  isActive,
  pagesBehind,
  names,
  states,
  work,
}: {
  link: PdfLink;
  isActive: boolean;
  /** How many pages come after this one. */
  pagesBehind: number;
  names: DestinationNames;
  states: LinkStates;
  work: CardWork;
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
          <Description key={`${link.id} ${link.description}`} link={link} work={work} />
          <FrameFields link={link} work={work} />
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
            {pagesBehind > 0 && <CopyOn link={link} pagesBehind={pagesBehind} work={work} />}
            <Button kind="quiet" className="-ml-1" onClick={() => work.remove(link)}>
              Remove link
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}

function Description({ link, work }: { link: PdfLink; work: CardWork }) {
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

const lines: readonly (readonly [FrameLine, string])[] = [
  ["none", "no frame"],
  ["solid", "a line"],
  ["dashed", "dashes"],
  ["underlined", "a line beneath"],
];

function FrameFields({ link, work }: { link: PdfLink; work: CardWork }) {
  const { frame } = link;
  const set = (change: Partial<Frame>): void =>
    work.frame(link, change.line === "none" ? noFrame : { ...frame, ...change });
  const box = "min-h-6 border border-hairline bg-paper px-1";
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <legend className="text-sm text-faint">Frame that readers see</legend>
      <select
        aria-label="Line"
        value={frame.line}
        onChange={(event) => set({ line: event.target.value as FrameLine })}
        className={box}
      >
        {lines.map(([line, words]) => (
          <option key={line} value={line}>
            {words}
          </option>
        ))}
      </select>
      {frame.line !== "none" && (
        <>
          <input
            aria-label="Thickness in points"
            type="number"
            min={0.5}
            max={12}
            step={0.5}
            value={frame.thickness}
            onChange={(event) =>
              event.target.valueAsNumber > 0 && set({ thickness: Math.min(event.target.valueAsNumber, 12) })
            }
            className={`${box} w-14 text-right tabular-nums`}
          />
          <input
            aria-label="Colour"
            type="color"
            value={frame.colour}
            onChange={(event) => set({ colour: event.target.value })}
            className="h-6 w-9 border border-hairline bg-paper"
          />
        </>
      )}
    </fieldset>
  );
}

/** Puts the same link at the same place of pages behind, as a way back to the front stands on every page. */
function CopyOn({ link, pagesBehind, work }: { link: PdfLink; pagesBehind: number; work: CardWork }) {
  const [count, setCount] = useState<number | null>(null);
  if (count === null)
    return (
      <Button kind="quiet" className="-ml-1" onClick={() => setCount(Math.min(1, pagesBehind))}>
        Copy to further pages
      </Button>
    );
  return (
    <span className="flex items-center gap-1.5">
      <label className="flex items-center gap-1.5">
        To the next
        <input
          type="number"
          autoFocus
          min={1}
          max={pagesBehind}
          value={count}
          onChange={(event) =>
            !Number.isNaN(event.target.valueAsNumber) &&
            setCount(Math.min(Math.max(1, event.target.valueAsNumber), pagesBehind))
          }
          className="min-h-6 w-16 border border-hairline bg-paper px-1 text-right tabular-nums"
        />
        pages
      </label>
      <Button
        kind="quiet"
        onClick={() => {
          work.copy(link, count);
          setCount(null);
        }}
      >
        Copy
      </Button>
    </span>
  );
}
