import { Button } from "../../parts/button";
import { LinkSteps, toolBox, TurnPages, WordSearch } from "../tool-parts";
import type { TextSearch } from "./text-search";

/** What is done to the e-book as a whole: turning its pages, going from link to link, and finding. */
export function TextTools({
  number,
  titles,
  onTurn,
  links,
  onStep,
  words,
  onLinkFound,
  isListing,
  onList,
}: {
  number: number;
  titles: readonly string[];
  onTurn: (to: number) => void;
  links: number;
  onStep: (by: 1 | -1) => void;
  words: TextSearch;
  onLinkFound: () => void;
  isListing: boolean;
  onList: () => void;
}) {
  return (
    <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-hairline bg-paper px-5 py-1 text-[0.93rem]">
      <TurnPages number={number} count={titles.length} onTurn={onTurn}>
        <select
          aria-label="Page"
          value={number}
          onChange={(event) => onTurn(Number(event.target.value))}
          className={`${toolBox} w-56 max-w-full`}
        >
          {titles.map((title, i) => (
            <option key={i} value={i + 1}>
              {i + 1}. {title}
            </option>
          ))}
        </select>
        <span className="tabular-nums">of {titles.length}</span>
      </TurnPages>
      <LinkSteps links={links} onStep={onStep} />
      <WordSearch
        label="Search the pages"
        typed={words.typed}
        told={words.told}
        onType={words.type}
        onNextPage={() => {
          const at = words.nextPage();
          if (at !== null) onTurn(at);
        }}
        onLink={words.found.length > 0 ? onLinkFound : null}
      />
      <Button kind="quiet" aria-expanded={isListing} onClick={onList} className="ml-auto">
        Addresses without a link
      </Button>
    </div>
  );
}
