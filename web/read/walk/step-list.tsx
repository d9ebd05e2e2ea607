import { useVirtualizer } from "@tanstack/react-virtual";
import { BadgeCheck, TriangleAlert } from "lucide-react";
import { useEffect, useRef } from "react";
import type { Step, Walk } from "./use-walk";
import type { Landed } from "./walker";

/** The steps of a walk, of which a file may have thousands: those that are seen are drawn. The one under way is kept in view. */
export function StepList({
  steps,
  walk: { steps: all, next, isUnderWay, goTo },
}: {
  /** Those that are listed. */
  steps: readonly Step[];
  walk: Walk;
}) {
  const scroller = useRef<HTMLDivElement>(null);
  const under = all[next];
  const current = under ? steps.indexOf(under) : -1;
  const virtual = useVirtualizer({
    count: steps.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => 42,
    overscan: 12,
  });
  const { scrollToIndex } = virtual;
  const height = virtual.getTotalSize();
  useEffect(() => {
    if (!isUnderWay || current === -1) return;
    // Rows grow as they are walked, and push this one on: the one that is drawn says where it is.
    const row = scroller.current?.querySelector(`[data-index="${current}"]`);
    if (row) row.scrollIntoView({ block: "nearest" });
    else scrollToIndex(current);
  }, [isUnderWay, current, scrollToIndex, height]);
  return (
    <div ref={scroller} className="-mx-4 min-h-0 grow overflow-y-auto border-t border-hairline">
      <ol aria-label="Links of the file" className="relative" style={{ height }}>
        {virtual.getVirtualItems().map(({ index, start, key }) => {
          const step = steps[index]!;
          return (
            <li
              key={key}
              ref={virtual.measureElement}
              data-index={index}
              aria-setsize={steps.length}
              aria-posinset={index + 1}
              aria-current={index === current ? "step" : undefined}
              className="absolute inset-x-0"
              style={{ transform: `translateY(${start}px)` }}
            >
              <StepRow step={step} isNext={index === current} onGoTo={() => goTo(all.indexOf(step))} />
            </li>
          );
        })}
      </ol>
    </div>
  );
}

function StepRow({ step, isNext, onGoTo }: { step: Step; isNext: boolean; onGoTo: () => void }) {
  const { link, intended, start, landed, difference } = step;
  const words = intended?.text || link.words || "A link without words";
  return (
    <div
      className={`border-b border-hairline px-4 py-2 ${difference ? "border-l-4 border-l-red bg-red-wash" : isNext ? "border-l-4 border-l-blue" : ""}`}
    >
      <div className="flex items-baseline gap-2">
        {landed &&
          (difference ? (
            <TriangleAlert aria-label="Differs" size={14} className="shrink-0 self-center text-red" />
          ) : (
            <BadgeCheck aria-label="As intended" size={14} className="shrink-0 self-center" />
          ))}
        <button
          type="button"
          onClick={onGoTo}
          className="min-h-[24px] min-w-0 grow text-left font-serif underline-offset-4 [overflow-wrap:anywhere] hover:text-blue hover:underline"
        >
          {words}
        </button>
        <span className="shrink-0 text-sm text-faint">{link.on}</span>
      </div>
      {landed && (
        <>
          <div className={landed.at === "missed" ? "hidden" : "mt-1 grid grid-cols-2 gap-2"}>
            <Thumbnail picture={start} what={`Where “${words}” stands`} />
            {landed.at === "place" ? (
              <Thumbnail picture={landed.picture} what={`Where “${words}” lands`} />
            ) : (
              <p className="self-center text-sm [overflow-wrap:anywhere]">{outward(landed)}</p>
            )}
          </div>
          {landed.at === "place" && (
            <p className="mt-0.5 truncate text-sm text-faint" title={landed.words}>
              {landed.on}: {landed.words}
            </p>
          )}
          {difference && <p className="mt-0.5 text-sm text-red">{difference}</p>}
          {!intended && <p className="mt-0.5 text-sm text-faint">A link of the file’s own.</p>}
        </>
      )}
    </div>
  );
}

function outward(landed: Landed): string {
  switch (landed.at) {
    case "address":
      return landed.address;
    case "file":
      return landed.isThere ? landed.path : `${landed.path} (not there)`;
    default:
      return "Nowhere";
  }
}

function Thumbnail({ picture, what }: { picture: string | null; what: string }) {
  if (picture === null) return <span />;
  return (
    <img
      src={picture}
      alt={what}
      className="aspect-[5/2] w-full border border-hairline bg-white object-cover object-top"
    />
  );
}
