import type { PdfLink } from "@vennet/core/finished/pdf/pdf-page";
import { noFrame, type Frame, type FrameLine } from "@vennet/core/manuscript/hotspot";

const lines: readonly (readonly [FrameLine, string])[] = [
  ["none", "no frame"],
  ["solid", "a line"],
  ["dashed", "dashes"],
  ["underlined", "a line beneath"],
];

/** The frame of a link, as readers see it. */
export function FrameFields({ link, onFrame }: { link: PdfLink; onFrame: (frame: Frame) => void }) {
  const { frame } = link;
  const set = (change: Partial<Frame>): void =>
    onFrame(change.line === "none" ? noFrame : { ...frame, ...change });
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
