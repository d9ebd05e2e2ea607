import { nameDestination, shortDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { FilePlus2, FileUp, LibraryBig, TextSelect } from "lucide-react";
import { KindMark } from "../../destinations/kind-mark";
import type { Choice } from "@vennet/core/destination/read-typed";

/** What Enter can take, the picked one marked; arrow keys go from one to the other. */
export function LineChoices({
  id,
  choices,
  picked,
  names,
  onTake,
}: {
  id: string;
  choices: Choice[];
  picked: Choice | null;
  names: DestinationNames;
  onTake: (choice: Choice) => void;
}) {
  return (
    <ul
      id={`${id}-choices`}
      role="listbox"
      aria-label="Where the link can lead"
      className={`max-h-[min(18rem,30dvh)] overflow-y-auto pr-3 pl-[5.75rem] text-sm ${choices.length > 0 ? "mt-1" : ""}`}
    >
      {choices.map((choice, i) => (
        <li
          key={keyOf(choice)}
          id={`${id}-choice-${i}`}
          role="option"
          aria-selected={choice === picked}
          // The field keeps the focus, so that a click is no leaving.
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => onTake(choice)}
          className={`flex cursor-pointer gap-2 px-1.5 py-0.5 ${choice === picked ? "bg-blue-wash" : ""}`}
        >
          <Words choice={choice} names={names} />
          {choice === picked && <span className="ml-auto shrink-0 text-faint">Enter</span>}
        </li>
      ))}
    </ul>
  );
}

function Words({ choice, names }: { choice: Choice; names: DestinationNames }) {
  switch (choice.kind) {
    case "recognised": {
      const { destination } = choice.recognised;
      return (
        <span className="flex min-w-0 gap-2">
          <KindMark kind={destination.kind} />
          <strong className="truncate">{shortDestination(destination, names)}</strong>
          {destination.kind === "web" && (
            <span className="truncate font-mono text-faint">{nameDestination(destination, names)}</span>
          )}
        </span>
      );
    }
    case "known":
      return (
        <span className="flex min-w-0 gap-2">
          <KindMark kind={choice.known.destination.kind} />
          <strong className="max-w-[60%] shrink-0 truncate">{choice.known.name}</strong>
          <span className="truncate text-faint">{choice.known.detail}</span>
        </span>
      );
    case "spot": {
      const { spot } = choice;
      return (
        <span className="flex min-w-0 items-baseline gap-2">
          <TextSelect aria-label="Words in the text" size={14} className="shrink-0 self-center" />
          <span className="truncate font-serif">
            {spot.before && "…"}
            {spot.before.slice(-24)}
            <strong>{spot.text}</strong>
            {spot.after}
          </span>
          <span className="shrink-0 text-faint">{spot.chapter}</span>
        </span>
      );
    }
    case "shelf":
      return (
        <span className="flex min-w-0 items-center gap-2">
          <LibraryBig aria-label="On your Shelf" size={14} className="shrink-0" />
          <strong className="max-w-[60%] shrink-0 truncate">{choice.place.name}</strong>
          <span className="truncate text-faint">{choice.place.detail}</span>
        </span>
      );
    case "page":
      return (
        <span className="flex min-w-0 items-center gap-1">
          <FilePlus2 aria-hidden size={14} className="shrink-0" />
          <span className="truncate">
            Make a page called <strong>{choice.title}</strong>
          </span>
        </span>
      );
    case "upload":
      return (
        <span className="flex items-center gap-1">
          <FileUp aria-hidden size={14} />
          Bring a file in from this computer
        </span>
      );
  }
}

function keyOf(choice: Choice): string {
  switch (choice.kind) {
    case "recognised":
      return "recognised";
    case "known":
      return JSON.stringify(choice.known.destination);
    case "spot":
      return `${choice.spot.chapterId} ${choice.spot.from}`;
    case "shelf":
      return `${choice.place.book} ${choice.place.place ?? ""}`;
    default:
      return choice.kind;
  }
}
