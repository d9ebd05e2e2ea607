import { CircleMinus, CirclePlus, PencilLine, Split, type LucideIcon } from "lucide-react";
import { useId } from "react";
import type { VersionOfBook } from "../api/client";
import { plural } from "../parts/wording";
import { Change, differenceKinds } from "../write/versions/link-differences";
import { ParagraphDifference, withoutMiddle } from "../write/versions/paragraph-difference";

type ShownChapter = VersionOfBook["chapters"][number];
export type Side = "here" | "elsewhere";

const kinds: Record<ShownChapter["kind"], { icon: LucideIcon; word: string }> = {
  new: { icon: CirclePlus, word: "new" },
  changed: { icon: PencilLine, word: "changed" },
  same: { icon: Split, word: "as it is, unless you choose otherwise" },
  gone: { icon: CircleMinus, word: "gone, it leaves the book" },
};
/** What a new version of a manuscript does to its book, chapter by chapter, links apart. */
export function Version({
  version,
  choices,
  onChoose,
}: {
  version: VersionOfBook;
  choices: readonly Side[];
  onChoose: (clash: number, side: Side) => void;
}) {
  const { chapters, same, links, hasBase } = version;
  const told = (["added", "changed", "removed"] as const)
    .filter((kind) => links[kind] > 0)
    .map((kind) => `${plural(links[kind], "link")} ${differenceKinds[kind].word.toLowerCase()}`);
  return (
    <section aria-label="What it changes" className="grid gap-3">
      <p>
        {chapters.length === 0
          ? "Nothing is another in this version."
          : `${plural(chapters.length, "chapter differs", "chapters differ")}${same > 0 ? `, ${same} as before` : ""}. ${told.length > 0 ? `${told.join(", ")}.` : "All links stay what they are."}`}
      </p>
      {!hasBase && (
        <p className="border-l-2 border-edge pl-3 text-sm">
          How this manuscript was when it came in is not known, so each difference counts as the new
          version’s.
        </p>
      )}
      {chapters.length > 0 && (
        <div className="border-y border-hairline">
          {chapters.map((chapter, i) => (
            <ChangedChapter key={i} chapter={chapter} choices={choices} onChoose={onChoose} />
          ))}
        </div>
      )}
    </section>
  );
}

function ChangedChapter({
  chapter: { title, kind, paragraphs, changedParagraphs, links, changedLinks, clashes },
  choices,
  onChoose,
}: {
  chapter: ShownChapter;
  choices: readonly Side[];
  onChoose: (clash: number, side: Side) => void;
}) {
  const { icon: Icon, word } = kinds[kind];
  const hasMore = paragraphs.length + links.length + clashes.length > 0;
  const summary = (
    <>
      <Icon aria-hidden size={15} strokeWidth={2.2} className="shrink-0" />
      <span className="min-w-0 grow font-serif [overflow-wrap:anywhere]">{title}</span>
      <span className="shrink-0 text-right text-sm text-faint">
        {kind === "changed"
          ? [
              changedParagraphs > 0 ? plural(changedParagraphs, "paragraph") : "",
              changedLinks > 0 ? plural(changedLinks, "link") : "",
            ]
              .filter(Boolean)
              .join(", ") || "how words are shown"
          : word}
      </span>
    </>
  );
  if (!hasMore)
    return (
      <div className="flex min-h-9 items-center gap-2 border-t border-hairline py-1 first:border-t-0">
        {summary}
      </div>
    );
  return (
    <details open={clashes.length > 0} className="group border-t border-hairline first:border-t-0">
      <summary className="flex min-h-9 cursor-pointer items-center gap-2 py-1 hover:bg-blue-wash">
        {summary}
        <span aria-hidden className="w-4 shrink-0 text-center font-mono text-faint group-open:rotate-90">
          ›
        </span>
      </summary>
      <div className="grid gap-3 pb-4 pl-6 text-sm">
        {clashes.map(({ number, parts }) => (
          <Clash
            key={number}
            parts={parts}
            chosen={choices[number] ?? "here"}
            onChoose={(side) => onChoose(number, side)}
          />
        ))}
        {links.length > 0 && (
          <ul aria-label="Links that are others" className="border-b border-hairline">
            {links.map(({ kind: became, text, before, after }, i) => {
              const { icon: Mark, word: what } = differenceKinds[became];
              return (
                <li
                  key={i}
                  className="grid gap-x-4 border-t border-hairline py-1 sm:grid-cols-[6.5rem_1fr_1fr]"
                >
                  <span className="inline-flex items-center gap-1 self-start">
                    <Mark aria-hidden size={14} /> {what}
                  </span>
                  <span className="font-serif [overflow-wrap:anywhere]">{text || "(no words)"}</span>
                  {became === "changed" ? (
                    <Change before={before ?? ""} after={after ?? ""} />
                  ) : (
                    <span className="font-mono text-[0.82rem] [overflow-wrap:anywhere] text-faint">
                      {after ?? before}
                    </span>
                  )}
                </li>
              );
            })}
          </ul>
        )}
        <div className="grid gap-2 font-serif text-base">
          {paragraphs.map((parts, i) => (
            <ParagraphDifference key={i} parts={parts} shortened />
          ))}
        </div>
        {changedParagraphs > paragraphs.length && (
          <p className="text-faint">And {plural(changedParagraphs - paragraphs.length, "more paragraph")}.</p>
        )}
      </div>
    </details>
  );
}

/** A stretch that was changed on both sides: both texts, and which of them is taken. */
function Clash({
  parts,
  chosen,
  onChoose,
}: {
  /** Both texts in one: what was removed is here alone. */
  parts: ShownChapter["clashes"][number]["parts"];
  chosen: Side;
  onChoose: (side: Side) => void;
}) {
  const name = useId();
  return (
    <fieldset className="border-l-2 border-red pl-3">
      <legend className="font-semibold">Changed here and in the manuscript. Which text stays?</legend>
      <div className="grid gap-3 sm:grid-cols-2">
        {(["here", "elsewhere"] as const).map((side) => (
          <label
            key={side}
            className={`flex cursor-pointer items-start gap-2 border p-2 ${chosen === side ? "border-blue bg-blue-wash" : "border-hairline"}`}
          >
            <input
              type="radio"
              name={name}
              checked={chosen === side}
              onChange={() => onChoose(side)}
              className="mt-1"
            />
            <span className="min-w-0">
              <span className="block text-faint">
                {side === "here" ? "As in the book" : "As in the manuscript"}
              </span>
              <span className="block font-serif text-base whitespace-pre-line [overflow-wrap:anywhere]">
                {parts
                  .filter(({ kind }) => kind !== (side === "here" ? "added" : "removed"))
                  .map(({ kind, text }, i) =>
                    kind === "same" ? (
                      <span key={i}>{withoutMiddle(text)}</span>
                    ) : (
                      // What the other text does not have.
                      <mark
                        key={i}
                        className="bg-red-wash text-ink underline decoration-red underline-offset-4"
                      >
                        {text}
                      </mark>
                    ),
                  )}
              </span>
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}
