import { RadioGroup } from "radix-ui";
import { Button } from "../../parts/button";
import { LinkSteps, toolBox as box, TurnPages, WordSearch } from "../tool-parts";
import type { FoundWords } from "./found-words";
import type { Tool } from "./page-desk";
import type { Picked } from "./picked";

const scales = [0.75, 1, 1.25, 1.5, 2];
const tools = [
  ["words", "Words"],
  ["area", "Area"],
] as const;

/** What is done to the page as a whole: turning, looking closer, what a pull picks, and finding. */
export function PageTools({
  number,
  label,
  count,
  onTurn,
  scale,
  onScale,
  tool,
  onTool,
  snaps,
  onSnaps,
  links,
  onStep,
  words,
  onLinkFound,
  isListing,
  onList,
}: {
  number: number;
  /** What the file calls the page. */
  label: string;
  count: number;
  onTurn: (to: number) => void;
  scale: number;
  onScale: (to: number) => void;
  tool: Exclude<Tool, "spot">;
  onTool: (to: Exclude<Tool, "spot">) => void;
  snaps: boolean;
  onSnaps: (to: boolean) => void;
  links: number;
  onStep: (by: 1 | -1) => void;
  words: FoundWords;
  onLinkFound: (picked: Picked) => void;
  isListing: boolean;
  onList: () => void;
}) {
  const [first] = words.onPage;
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-hairline bg-paper px-5 py-1 text-[0.93rem]">
      <TurnPages number={number} count={count} onTurn={onTurn}>
        <input
          aria-label="Page"
          type="number"
          min={1}
          max={count}
          value={number}
          onChange={(event) =>
            !Number.isNaN(event.target.valueAsNumber) && onTurn(event.target.valueAsNumber)
          }
          className={`${box} w-14 text-right tabular-nums`}
        />
        <span className="tabular-nums">
          of {count}
          {label !== String(number) && `, called ${label}`}
        </span>
      </TurnPages>
      <label className="flex items-center gap-1.5">
        <span className="text-faint">Zoom</span>
        <select value={scale} onChange={(event) => onScale(Number(event.target.value))} className={box}>
          {scales.map((one) => (
            <option key={one} value={one}>
              {one * 100} %
            </option>
          ))}
        </select>
      </label>
      <span className="flex items-center gap-2">
        <span className="text-faint" id="pull-picks">
          Select
        </span>
        <RadioGroup.Root
          aria-labelledby="pull-picks"
          orientation="horizontal"
          value={tool}
          onValueChange={(to) => onTool(to as Exclude<Tool, "spot">)}
          className="flex"
        >
          {tools.map(([one, name]) => (
            <RadioGroup.Item
              key={one}
              value={one}
              className="min-h-7 border border-edge px-2 not-first:border-l-0 aria-checked:bg-blue-wash aria-checked:font-semibold"
            >
              {name}
            </RadioGroup.Item>
          ))}
        </RadioGroup.Root>
        {tool === "area" && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={snaps}
              onChange={(event) => onSnaps(event.target.checked)}
              className="size-4 accent-blue"
            />
            tight around words
          </label>
        )}
      </span>
      <LinkSteps links={links} onStep={onStep} />
      <WordSearch
        label="Search the pages"
        typed={words.typed}
        told={words.told || `${words.onPage.length} here`}
        onType={words.type}
        onNextPage={() => void words.nextPage().then((at) => at !== null && onTurn(at))}
        onLink={first ? () => onLinkFound(first) : null}
      />
      <Button kind="quiet" aria-expanded={isListing} onClick={onList} className="ml-auto">
        Addresses without a link
      </Button>
    </div>
  );
}
