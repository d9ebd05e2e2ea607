import { fitHotspot, hotspotBox, type FrameLine } from "@vennet/core/manuscript/hotspot";
import { useId } from "react";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import type { DraftHotspot } from "./draft-hotspot";

const frameLines: [FrameLine, string][] = [
  ["none", "none"],
  ["solid", "solid"],
  ["dashed", "dashed"],
  ["underlined", "underlined"],
];

/** Everything about one hotspot that can be typed: what it is, where it lies, how it is framed. */
export function HotspotFields({
  hotspot,
  onLink,
  onChange,
  onDuplicate,
  onReorder,
  onRemove,
}: {
  hotspot: DraftHotspot;
  onLink: () => void;
  onChange: (to: Partial<DraftHotspot>) => void;
  onDuplicate: () => void;
  onReorder: (by: 1 | -1) => void;
  onRemove: () => void;
}) {
  const id = useId();
  const { frame } = hotspot;
  const box = hotspotBox(hotspot);
  const side = (label: string, key: keyof typeof box) => (
    <Field
      label={label}
      type="number"
      min={0}
      max={100}
      step={0.5}
      value={Math.round(box[key] * 1000) / 10}
      onChange={(event) => {
        const share = Number(event.target.value) / 100;
        if (share >= 0 && share <= 1)
          onChange({ points: fitHotspot(hotspot, { ...box, [key]: share }).points });
      }}
    />
  );
  return (
    <div className="mt-4 grid gap-2">
      <Field
        label="Text alternative"
        value={hotspot.alt}
        onChange={(event) => onChange({ alt: event.target.value })}
      />
      <Button className="justify-self-start" onClick={onLink}>
        {hotspot.destination ? "Change where it leads" : "Say where it leads"}
      </Button>
      <fieldset className="grid grid-cols-4 gap-2">
        <legend className="text-sm text-faint">Place and size, in percent of the picture</legend>
        {side("Left", "x")}
        {side("Top", "y")}
        {side("Width", "width")}
        {side("Height", "height")}
      </fieldset>
      <fieldset className="flex flex-wrap items-end gap-3">
        <legend className="text-sm text-faint">Frame that readers see</legend>
        <div>
          <label htmlFor={`${id}-line`} className="block text-sm text-faint">
            Line
          </label>
          <select
            id={`${id}-line`}
            value={frame.line}
            onChange={(event) => onChange({ frame: { ...frame, line: event.target.value as FrameLine } })}
            className="min-h-8 border border-hairline bg-paper px-1"
          >
            {frameLines.map(([line, words]) => (
              <option key={line} value={line}>
                {words}
              </option>
            ))}
          </select>
        </div>
        <Field
          className="w-20"
          label="Thickness"
          type="number"
          min={0.5}
          max={20}
          step={0.5}
          disabled={frame.line === "none"}
          value={frame.thickness}
          onChange={(event) => {
            const thickness = Number(event.target.value);
            if (thickness > 0 && thickness <= 20) onChange({ frame: { ...frame, thickness } });
          }}
        />
        <div>
          <label htmlFor={`${id}-colour`} className="block text-sm text-faint">
            Colour
          </label>
          <input
            id={`${id}-colour`}
            type="color"
            value={frame.colour}
            disabled={frame.line === "none"}
            onChange={(event) => onChange({ frame: { ...frame, colour: event.target.value } })}
            className="h-8 w-12 border border-hairline bg-paper"
          />
        </div>
      </fieldset>
      <div className="flex flex-wrap gap-x-3">
        <Button kind="quiet" className="-ml-1" onClick={onDuplicate}>
          Make a copy
        </Button>
        <Button kind="quiet" onClick={() => onReorder(1)}>
          Higher
        </Button>
        <Button kind="quiet" onClick={() => onReorder(-1)}>
          Lower
        </Button>
        <Button kind="quiet" onClick={onRemove}>
          Remove
        </Button>
      </div>
    </div>
  );
}
