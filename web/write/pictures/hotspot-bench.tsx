import { nameDestination } from "@vennet/core/destination/destination";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { ShelfPlace } from "@vennet/core/destination/read-typed";
import { coveredHotspots } from "@vennet/core/checks/hotspot-overlap";
import {
  moveHotspot,
  noFrame,
  type Hotspot,
  type HotspotShape,
  type Point,
} from "@vennet/core/manuscript/hotspot";
import { newId } from "@vennet/core/manuscript/ids";
import type { PictureAttrs } from "@vennet/core/manuscript/attributes";
import { RadioGroup } from "radix-ui";
import { useEffect, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { flushSync } from "react-dom";
import { Button } from "../../parts/button";
import { undoDirection } from "../../frame/undo-keys";
import { useDestinationNames } from "../../destinations/known-destinations";
import { LinkLine } from "../links/link-line";
import { HotspotCanvas } from "./hotspot-canvas";
import { HotspotFields } from "./hotspot-fields";
import type { DraftHotspot, Tool } from "./draft-hotspot";

const tools: [Tool, string][] = [
  ["choose", "Choose and move"],
  ["rectangle", "Rectangle"],
  ["ellipse", "Ellipse"],
  ["polygon", "Polygon"],
];

const nudge = 0.005;

/** What is added without a pointer, to be moved and sized by keys. */
const inTheMiddle: Record<HotspotShape, Point[]> = {
  rectangle: [
    [0.4, 0.4],
    [0.6, 0.6],
  ],
  ellipse: [
    [0.4, 0.4],
    [0.6, 0.6],
  ],
  polygon: [
    [0.5, 0.4],
    [0.6, 0.6],
    [0.4, 0.6],
  ],
};

/** Where the areas of a picture that are links are drawn, given their destinations, and ordered. */
export function HotspotBench({
  bookId,
  picture,
  onMakePage,
  onBringFile,
  onShelf,
  onChange,
  onDone,
}: {
  bookId: string;
  picture: PictureAttrs;
  onMakePage: (title: string) => Promise<Destination>;
  onBringFile: (file: File) => Promise<Destination>;
  onShelf: (place: ShelfPlace) => Promise<Destination>;
  /** Takes the areas that lead somewhere, after each change of them. */
  onChange: (hotspots: Hotspot[]) => void;
  onDone: () => void;
}) {
  const names = useDestinationNames(bookId);
  const [steps, setSteps] = useState<DraftHotspot[][]>([picture.hotspots]);
  const [at, setAt] = useState(0);
  const [tool, setTool] = useState<Tool>(picture.hotspots.length === 0 ? "rectangle" : "choose");
  const [chosenId, setChosenId] = useState<string | null>(picture.hotspots[0]?.id ?? null);
  const [isLinking, setLinking] = useState(false);
  const [asked, setAsked] = useState(false);
  const areas = useRef<HTMLOListElement>(null);
  const hotspots = steps[at]!;
  const chosen = hotspots.find(({ id }) => id === chosenId) ?? null;
  const aimless = hotspots.filter(({ destination }) => destination === null);
  const overlaps = useMemo(() => overlapMessages(hotspots), [hotspots]);

  const set = (next: DraftHotspot[]): void => {
    setSteps([...steps.slice(0, at + 1), next]);
    setAt(at + 1);
    onChange(leading(next));
  };
  const goTo = (step: number): void => {
    setAt(step);
    onChange(leading(steps[step]!));
  };
  const change = (id: string, to: Partial<DraftHotspot>): void =>
    set(hotspots.map((hotspot) => (hotspot.id === id ? { ...hotspot, ...to } : hotspot)));
  const draw = (shape: HotspotShape, points: Point[]): void => {
    const id = newId();
    set([...hotspots, { id, shape, points, destination: null, alt: "", description: null, frame: noFrame }]);
    setChosenId(id);
    setTool("choose");
    setLinking(true);
  };
  const endLinking = (): void => {
    flushSync(() => setLinking(false));
    areas.current?.querySelector<HTMLElement>(`[data-area="${chosenId}"]`)?.focus();
  };
  const remove = (id: string): void => {
    set(hotspots.filter((hotspot) => hotspot.id !== id));
    setChosenId(hotspots.find((hotspot) => hotspot.id !== id)?.id ?? null);
  };
  const duplicate = (hotspot: DraftHotspot): void => {
    const copy = moveHotspot({ ...hotspot, id: newId() }, 0.03, 0.03);
    set([...hotspots, copy]);
    setChosenId(copy.id);
  };
  const reorder = (id: string, by: 1 | -1): void => {
    const from = hotspots.findIndex((hotspot) => hotspot.id === id);
    const to = from + by;
    if (to < 0 || to >= hotspots.length) return;
    const next = [...hotspots];
    [next[from], next[to]] = [next[to]!, next[from]!];
    set(next);
  };
  const undo = (): void => goTo(Math.max(0, at - 1));
  const redo = (): void => goTo(Math.min(steps.length - 1, at + 1));

  const addInTheMiddle = (): void => {
    const shape = tool === "choose" ? "rectangle" : tool;
    draw(shape, inTheMiddle[shape]);
  };
  const cancel = (): void => {
    onChange(picture.hotspots);
    onDone();
  };

  const onRowKey = (event: KeyboardEvent, hotspot: DraftHotspot): void => {
    const step = event.shiftKey ? nudge * 10 : nudge;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const move = moves[event.key];
    if (move) change(hotspot.id, { points: moveHotspot(hotspot, ...move).points });
    else if (event.key === "Delete") remove(hotspot.id);
    else if (event.key === "d") duplicate(hotspot);
    else if (event.key === "PageUp") reorder(hotspot.id, 1);
    else if (event.key === "PageDown") reorder(hotspot.id, -1);
    else return;
    event.preventDefault();
  };
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      const direction = undoDirection(event);
      if (!direction || /^(INPUT|TEXTAREA)$/.test(target.tagName)) return;
      event.preventDefault();
      if (direction === "redo") redo();
      else undo();
    };
    // Before the whole book's undo hears of it.
    addEventListener("keydown", onKey, true);
    return () => removeEventListener("keydown", onKey, true);
  });

  const done = (): void => {
    setAsked(true);
    if (aimless.length > 0) {
      setChosenId(aimless[0]!.id);
      return;
    }
    onDone();
  };
  return (
    <section aria-label="Hotspots" className="flex min-h-full flex-col bg-paper">
      <div className="sticky top-0 z-30 flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hairline bg-paper px-4 py-1.5">
        <h1 className="font-serif text-[1.05rem]">Hotspots</h1>
        <RadioGroup.Root
          aria-label="Tool"
          orientation="horizontal"
          value={tool}
          onValueChange={(to) => setTool(to as Tool)}
          className="flex flex-wrap gap-x-1"
        >
          {tools.map(([one, words]) => (
            <RadioGroup.Item
              key={one}
              value={one}
              autoFocus={one === "rectangle" && picture.hotspots.length === 0}
              className="min-h-7 px-2 hover:bg-blue-wash aria-checked:bg-blue-wash aria-checked:text-blue aria-checked:underline aria-checked:underline-offset-4"
            >
              {words}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
        <Button kind="quiet" onClick={addInTheMiddle}>
          Add in the middle
        </Button>
        <Button kind="quiet" disabled={at === 0} onClick={undo}>
          Undo
        </Button>
        <Button kind="quiet" disabled={at === steps.length - 1} onClick={redo}>
          Redo
        </Button>
        <span className="ml-auto flex items-center gap-3">
          {asked && aimless.length > 0 && (
            <span role="alert" className="text-red">
              {aimless.length === 1 ? "One area leads" : `${aimless.length} areas lead`} nowhere yet.
            </span>
          )}
          <Button kind="quiet" onClick={cancel}>
            Cancel
          </Button>
          <Button kind="main" onClick={done}>
            Done
          </Button>
        </span>
      </div>
      <div className="grid grow gap-6 p-5 min-[900px]:grid-cols-[minmax(0,1fr)_21rem]">
        <div className="min-w-0">
          <HotspotCanvas
            address={`/api/books/${bookId}/files/${picture.file!}`}
            alt={picture.alt}
            hotspots={hotspots}
            captions={
              new Map(
                hotspots.map(({ id, destination }) => [
                  id,
                  destination ? nameDestination(destination, names) : "leads nowhere yet",
                ]),
              )
            }
            chosenId={chosenId}
            tool={tool}
            onChoose={setChosenId}
            onChange={(id, points) => change(id, { points })}
            onDraw={draw}
          />
          <p className="mt-2 text-sm text-faint">
            {tool === "polygon"
              ? "Click each corner; a click on the first one, or Enter, closes it. Esc begins again."
              : tool === "choose"
                ? "Drag an area to move it, its corners to resize it. Readers see the frame alone, if it has one."
                : "Drag over the picture to draw."}
          </p>
        </div>
        <div className="min-w-0">
          <ol ref={areas} aria-label="Areas, the lowest first" className="border-t border-hairline">
            {hotspots.map((hotspot, i) => (
              <li key={hotspot.id} className="border-b border-hairline">
                <button
                  type="button"
                  aria-pressed={hotspot.id === chosenId}
                  aria-describedby="hotspot-keys"
                  data-area={hotspot.id}
                  autoFocus={hotspot.id === picture.hotspots[0]?.id}
                  onClick={() => setChosenId(hotspot.id)}
                  onFocus={() => setChosenId(hotspot.id)}
                  onKeyDown={(event) => onRowKey(event, hotspot)}
                  className="block w-full border-l-2 border-transparent px-2 py-1 text-left aria-pressed:border-blue aria-pressed:bg-blue-wash"
                >
                  <span className="mr-2 text-faint tabular-nums">{i + 1}</span>
                  {hotspot.alt || <span className="text-red">No text alternative</span>}
                  <span className="block truncate text-sm text-faint">
                    {hotspot.destination ? nameDestination(hotspot.destination, names) : "Leads nowhere yet"}
                  </span>
                </button>
                {overlaps.get(hotspot.id) && (
                  <p className="px-2 pb-1 text-sm text-red">{overlaps.get(hotspot.id)}</p>
                )}
              </li>
            ))}
          </ol>
          {hotspots.length === 0 && (
            <p className="py-3">No area yet. Choose a shape above and draw it on the picture.</p>
          )}
          <p id="hotspot-keys" className="mt-1 text-sm text-faint">
            Arrow keys move the area, with Shift further; D makes a copy; Page Up and Page Down put it higher
            or lower; Delete removes it.
          </p>
          {chosen && isLinking && (
            <div className="mt-3">
              <LinkLine
                key={chosen.id}
                bookId={bookId}
                destination={chosen.destination}
                words={chosen.alt}
                description={chosen.description}
                wordsLabel="What it is"
                onMakePage={onMakePage}
                onBringFile={onBringFile}
                onShelf={onShelf}
                onLeave={endLinking}
                onTake={({ destination, words, description }) => {
                  change(chosen.id, { destination, alt: words, description });
                  endLinking();
                }}
              />
            </div>
          )}
          {chosen && !isLinking && (
            <HotspotFields
              key={chosen.id}
              hotspot={chosen}
              onLink={() => setLinking(true)}
              onChange={(to) => change(chosen.id, to)}
              onDuplicate={() => duplicate(chosen)}
              onReorder={(by) => reorder(chosen.id, by)}
              onRemove={() => remove(chosen.id)}
            />
          )}
        </div>
      </div>
    </section>
  );
}

function leading(hotspots: DraftHotspot[]): Hotspot[] {
  return hotspots.filter((hotspot): hotspot is Hotspot => hotspot.destination !== null);
}

/** What the rule about covered hotspots says, by hotspot. */
function overlapMessages(hotspots: DraftHotspot[]): Map<string, string> {
  return new Map(coveredHotspots(hotspots).map(({ subject, message }) => [subject, message]));
}
