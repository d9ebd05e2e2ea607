import type { TextPart } from "@vennet/core/manuscript/versions";

/** The words of two versions in one text: what went is struck, what came is underlined. */
export function TextDifferences({ paragraphs }: { paragraphs: TextPart[][] }) {
  const differ = paragraphs.some((parts) => parts.some(({ kind }) => kind !== "same"));
  return (
    <section aria-label="Words" className="bg-paper p-5 shadow-[0_0_0_1px_var(--hairline)]">
      <h2 className="font-serif text-lg">{differ ? "Words" : "No word differs"}</h2>
      <div className="mt-2 grid gap-3 font-serif leading-relaxed">
        {paragraphs.map((parts, i) => (
          <p key={i} className="[overflow-wrap:anywhere] whitespace-pre-wrap">
            {parts.map(({ kind, text }, j) =>
              kind === "added" ? (
                <ins key={j} className="bg-blue-wash text-blue underline decoration-2 underline-offset-4">
                  {text}
                </ins>
              ) : kind === "removed" ? (
                <del key={j} className="bg-red-wash text-red">
                  {text}
                </del>
              ) : (
                <span key={j}>{text}</span>
              ),
            )}
          </p>
        ))}
      </div>
    </section>
  );
}
