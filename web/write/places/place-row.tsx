import type { PlaceKind } from "@vennet/core/manuscript/outline";
import { Heading, Image, MapPin, PenLine, Signpost, Superscript, Table, type LucideIcon } from "lucide-react";
import type { PlaceListing } from "../../api/client";
import { kindWords } from "../../destinations/known-place";
import { plural } from "../../parts/wording";

const icons: Record<PlaceKind, LucideIcon | null> = {
  title: null,
  heading: Heading,
  anchor: MapPin,
  note: Superscript,
  figure: Image,
  table: Table,
  signposts: Signpost,
};

/** A place in the list: gone to by its name, with its page and how many links lead there. */
export function PlaceRow({
  place,
  number,
  isOpen,
  onVisit,
  onChange,
}: {
  place: PlaceListing;
  /** The number that it has in the book; null for none. */
  number: string | null;
  /** Whether what can be done with it stands below. */
  isOpen: boolean;
  onVisit: () => void;
  onChange: () => void;
}) {
  const indent = place.kind === "title" ? 0 : (place.level ?? 1);
  const name = place.text.trim() || (place.kind === "anchor" ? "without a name" : kindWords[place.kind]);
  const Icon = icons[place.kind];
  return (
    <div
      className="flex items-baseline gap-1.5 py-0.5 pr-2 hover:bg-blue-wash"
      style={{ paddingLeft: `${1 + indent * 0.7}rem` }}
    >
      {Icon && (
        <Icon
          aria-label={kindWords[place.kind].toLowerCase()}
          size={13}
          className="shrink-0 translate-y-0.5"
        />
      )}
      <button
        type="button"
        onClick={onVisit}
        className={`min-w-0 grow text-left font-serif leading-snug [overflow-wrap:anywhere] hover:text-blue ${place.kind === "title" ? "font-semibold" : ""}`}
      >
        {number !== null && <span className="text-faint">{number} </span>}
        {name}
      </button>
      {place.kind === "anchor" && (
        <button
          type="button"
          aria-expanded={isOpen}
          aria-label={`Change the anchor “${name}”`}
          onClick={onChange}
          data-tip="Change"
          className="min-h-[24px] min-w-[24px] shrink-0 p-1 text-faint hover:text-blue"
        >
          <PenLine aria-hidden size={13} />
        </button>
      )}
      <span className="w-8 shrink-0 text-right text-sm text-faint tabular-nums">
        <span className="sr-only">{place.page ? "page " : ""}</span>
        {place.page}
      </span>
      <span
        className="w-7 shrink-0 text-right text-sm text-faint tabular-nums"
        title={plural(place.uses, "link leads here", "links lead here")}
      >
        {place.uses > 0 ? place.uses : "–"}
        <span className="sr-only"> {place.uses === 1 ? "link leads here" : "links lead here"}</span>
      </span>
    </div>
  );
}
