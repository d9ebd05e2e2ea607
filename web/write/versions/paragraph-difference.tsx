import type { TextPart } from "@vennet/core/manuscript/versions";

/** So much of a stretch that both versions have is shown on either side of what differs, where it is shortened. */
const kept = 60;

/** The words of two versions of a paragraph in one text: what went is struck, what came is underlined. */
export function ParagraphDifference({
  parts,
  shortened = false,
}: {
  parts: TextPart[];
  shortened?: boolean;
}) {
  return (
    <p className="[overflow-wrap:anywhere] whitespace-pre-wrap">
      {parts.map(({ kind, text }, i) =>
        kind === "added" ? (
          <ins key={i} className="bg-blue-wash text-blue underline decoration-2 underline-offset-4">
            {text}
          </ins>
        ) : kind === "removed" ? (
          <del key={i} className="bg-red-wash text-red">
            {text}
          </del>
        ) : (
          <span key={i}>{shortened ? withoutMiddle(text) : text}</span>
        ),
      )}
    </p>
  );
}

/** A long text without its middle, cut between words. */
export function withoutMiddle(text: string): string {
  if (text.length <= 3 * kept) return text;
  const [start] = /^[\s\S]{0,60}(?=\s)/.exec(text) ?? [text.slice(0, kept)];
  const [end] = /(?<=\s)[\s\S]{0,60}$/.exec(text) ?? [text.slice(-kept)];
  return `${start} … ${end}`;
}
