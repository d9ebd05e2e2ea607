import type { TextPart } from "@vennet/core/manuscript/versions";
import { ParagraphDifference } from "./paragraph-difference";

/** The words of two versions in one text. */
export function TextDifferences({ paragraphs }: { paragraphs: TextPart[][] }) {
  const differ = paragraphs.some((parts) => parts.some(({ kind }) => kind !== "same"));
  return (
    <section aria-label="Words" className="bg-paper p-5 shadow-[0_0_0_1px_var(--hairline)]">
      <h2 className="font-serif text-lg">{differ ? "Words" : "No word differs"}</h2>
      <div className="mt-2 grid gap-3 font-serif leading-relaxed">
        {paragraphs.map((parts, i) => (
          <ParagraphDifference key={i} parts={parts} />
        ))}
      </div>
    </section>
  );
}
