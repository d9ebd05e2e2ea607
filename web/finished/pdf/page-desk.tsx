import { boxAround, type Area, type PdfLink, type PdfPage } from "@vennet/core/finished/pdf/pdf-page";
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent, type ReactNode } from "react";
import { Problem } from "../../parts/notice";
import { areaPicked, drawnAt, wordsBetween, type Picked } from "./picked";
import { areaBetween, boxOf, pointAt, type ShownPage } from "./shown-page";

/** What a press and a pull on the page do. */
export type Tool = "words" | "area" | "spot";

type Spot = readonly [left: number, top: number];

/** Only further than this a pull is meant as one, in CSS px. */
const least = 4;

/** One page of a finished file: what is painted, and over it its links, which are selected, moved and drawn here. */
export function PageDesk({
  shown,
  canvas,
  problem,
  page,
  tool,
  snaps,
  active,
  picked,
  found,
  onPick,
  onSelect,
  onArea,
  onSpot,
  children,
}: {
  shown: ShownPage | null;
  canvas: React.RefObject<HTMLCanvasElement | null>;
  problem: string | null;
  page: PdfPage;
  tool: Tool;
  snaps: boolean;
  /** The id of the link that is worked on. */
  active: string | null;
  /** What is picked for a new link. */
  picked: Picked | null;
  /** Where sought words stand. */
  found: readonly Picked[];
  onPick: (picked: Picked) => void;
  onSelect: (id: string | null) => void;
  /** Moves or resizes the area of a link. */
  onArea: (link: PdfLink, areas: Area[]) => void;
  onSpot: (x: number, y: number) => void;
  /** What stands over the page, at the link that is worked on. */
  children?: ReactNode;
}) {
  const sheet = useRef<HTMLDivElement>(null);
  const [pull, setPull] = useState<{ from: Spot; to: Spot } | null>(null);
  const [moved, setMoved] = useState<{ link: PdfLink; by: Spot; stretches: boolean } | null>(null);
  const isReady = shown !== null && shown.number === page.number;

  const spotOf = (event: PointerEvent): Spot => {
    const { left, top } = sheet.current!.getBoundingClientRect();
    return [event.clientX - left, event.clientY - top];
  };
  const isPull = pull && Math.hypot(pull.to[0] - pull.from[0], pull.to[1] - pull.from[1]) >= least;
  const preview =
    isReady && isPull
      ? tool === "area"
        ? areaPicked(shown.letters, areaBetween(shown, pull.from, pull.to), false)
        : wordsBetween(shown.letters, pointAt(shown, ...pull.from), pointAt(shown, ...pull.to))
      : null;

  const onPointerDown = (event: PointerEvent): void => {
    if (!isReady || event.button !== 0 || (event.target as HTMLElement).closest("[data-over]")) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = spotOf(event);
    setPull({ from: at, to: at });
  };
  const onPointerMove = (event: PointerEvent): void => {
    if (pull) setPull({ ...pull, to: spotOf(event) });
  };
  const onPointerUp = (event: PointerEvent): void => {
    if (!pull || !isReady) return;
    setPull(null);
    const to = spotOf(event);
    if (tool === "spot") return onSpot(...pointAt(shown, ...to));
    if (!isPull) {
      const drawn = tool === "area" ? drawnAt(shown, page.box, ...pointAt(shown, ...to)) : null;
      return drawn ? onPick(drawn) : onSelect(null);
    }
    const area = areaBetween(shown, pull.from, to);
    const made =
      tool === "area"
        ? areaPicked(shown.letters, area, snaps)
        : wordsBetween(shown.letters, pointAt(shown, ...pull.from), pointAt(shown, ...to));
    if (made) onPick(made);
  };

  return (
    <div
      ref={sheet}
      data-testid="sheet"
      className={`relative shrink-0 touch-none border border-hairline bg-white shadow-sm select-none ${tool === "words" ? "cursor-text" : "cursor-crosshair"}`}
      style={
        shown ? { width: shown.viewport.width, height: shown.viewport.height } : { width: 560, height: 790 }
      }
      onPointerDown={onPointerDown}
      onPointerMove={onPointerMove}
      onPointerUp={onPointerUp}
      onPointerCancel={() => setPull(null)}
    >
      {problem && <Problem>{problem}</Problem>}
      <canvas ref={canvas} aria-hidden className="absolute inset-0 size-full" />
      {/* What is painted is told to those who do not see it. */}
      {isReady && (
        <p className="sr-only">
          {shown.letters.map(({ text, endsLine }) => (endsLine ? `${text}\n` : text)).join("")}
        </p>
      )}
      {isReady &&
        found.flatMap(({ areas }, i) =>
          areas.map((area, j) => (
            <span
              key={`${i} ${j}`}
              aria-hidden
              style={boxOf(shown, area)}
              className="absolute border-b-2 border-[#1d4f8f] bg-[#1d4f8f]/10"
            />
          )),
        )}
      {isReady &&
        page.untouched.map(({ from, areas, why }) =>
          (areas ?? []).map((area, i) => (
            <span
              key={`${from} ${i}`}
              title={why}
              style={boxOf(shown, area)}
              className="absolute outline-2 outline-[#a8231b] outline-dotted"
            />
          )),
        )}
      {isReady &&
        page.links.map((link) => (
          <LinkAreas
            key={link.id}
            link={link}
            shown={shown}
            isActive={link.id === active}
            isFree={tool !== "spot"}
            moved={moved?.link.id === link.id ? moved : null}
            onSelect={() => onSelect(link.id)}
            onMove={(by, stretches) => setMoved({ link, by, stretches })}
            onMoved={(by, stretches) => {
              setMoved(null);
              onArea(link, shifted(shown, link.areas, by, stretches));
            }}
          />
        ))}
      {isReady &&
        [...(preview?.areas ?? []), ...(picked?.areas ?? [])].map((area, i) => (
          <span
            key={i}
            data-testid="picked"
            aria-hidden
            style={boxOf(shown, area)}
            className="pointer-events-none absolute bg-[#1d4f8f]/25 outline-2 outline-[#1d4f8f]"
          />
        ))}
      {isReady && children}
    </div>
  );
}

/** Areas moved by some CSS px, or, where they are stretched, with their lower right corner moved. */
function shifted(shown: ShownPage, areas: readonly Area[], [dx, dy]: Spot, stretches: boolean): Area[] {
  return areas.map((area, i) => {
    const { left, top, width, height } = boxOf(shown, area);
    if (!stretches) return areaBetween(shown, [left + dx, top + dy], [left + width + dx, top + height + dy]);
    if (i < areas.length - 1) return area;
    return areaBetween(
      shown,
      [left, top],
      [Math.max(left + 3, left + width + dx), Math.max(top + 3, top + height + dy)],
    );
  });
}

const steps: Readonly<Record<string, Spot>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** The areas of a link: pressed it is selected; selected it is moved by pulling or by keys, and stretched at its corner. */
function LinkAreas({
  link,
  shown,
  isActive,
  isFree,
  moved,
  onSelect,
  onMove,
  onMoved,
}: {
  link: PdfLink;
  shown: ShownPage;
  isActive: boolean;
  /** Whether it takes presses. */
  isFree: boolean;
  moved: { by: Spot; stretches: boolean } | null;
  onSelect: () => void;
  onMove: (by: Spot, stretches: boolean) => void;
  onMoved: (by: Spot, stretches: boolean) => void;
}) {
  const from = useRef<Spot | null>(null);
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (isActive) first.current?.scrollIntoView({ block: "nearest" });
  }, [isActive]);
  const areas = moved ? shifted(shown, link.areas, moved.by, moved.stretches) : link.areas;
  const pulled = (event: PointerEvent): Spot => [
    event.clientX - from.current![0],
    event.clientY - from.current![1],
  ];
  const pulling = (stretches: boolean) => ({
    onPointerDown: (event: PointerEvent) => {
      event.stopPropagation();
      if (!isActive) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      from.current = [event.clientX, event.clientY];
    },
    onPointerMove: (event: PointerEvent) => {
      if (from.current && Math.hypot(...pulled(event)) >= least) onMove(pulled(event), stretches);
    },
    onPointerUp: (event: PointerEvent) => {
      if (!from.current) return;
      const by = pulled(event);
      from.current = null;
      if (Math.hypot(...by) >= least) onMoved(by, stretches);
    },
  });
  const onKeyDown = (event: KeyboardEvent): void => {
    const step = steps[event.key];
    if (!isActive || !step || event.ctrlKey || event.metaKey) return;
    event.preventDefault();
    const far = event.altKey ? 10 : 1;
    onMoved([step[0] * far * shown.viewport.scale, step[1] * far * shown.viewport.scale], event.shiftKey);
  };
  const { line, thickness, colour } = link.frame;
  return (
    <>
      {areas.map((area, i) => (
        <button
          key={i}
          ref={i === 0 ? first : undefined}
          type="button"
          data-link-area={link.id}
          aria-label={`Link ${link.words || link.description || "without words"}`}
          aria-pressed={isActive}
          {...(i > 0 ? { tabIndex: -1, "aria-hidden": true } : {})}
          onClick={onSelect}
          onKeyDown={onKeyDown}
          {...pulling(false)}
          style={{
            ...boxOf(shown, area),
            pointerEvents: isFree ? undefined : "none",
            ...(line === "none"
              ? {}
              : {
                  [line === "underlined" ? "borderBottom" : "border"]:
                    `${thickness * shown.viewport.scale}px ${line === "dashed" ? "dashed" : "solid"} ${colour}`,
                }),
          }}
          className={`absolute cursor-pointer ${
            isActive
              ? "z-10 bg-[#1d4f8f]/15 outline-2 outline-[#1d4f8f]"
              : "outline-1 outline-[#1d4f8f]/70 outline-dashed hover:bg-[#1d4f8f]/10"
          }`}
        />
      ))}
      {isActive && <Corner shown={shown} areas={areas} {...pulling(true)} />}
    </>
  );
}

function Corner({
  shown,
  areas,
  ...pulling
}: { shown: ShownPage; areas: readonly Area[] } & Record<
  `onPointer${"Down" | "Move" | "Up"}`,
  (event: PointerEvent) => void
>) {
  const { left, top, width, height } = boxOf(shown, boxAround(areas.slice(-1)));
  return (
    <span
      aria-hidden
      {...pulling}
      style={{ left: left + width - 5, top: top + height - 5 }}
      className="absolute z-20 size-2.5 cursor-nwse-resize border border-white bg-[#1d4f8f]"
    />
  );
}
