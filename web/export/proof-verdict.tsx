import { BadgeCheck, TriangleAlert } from "lucide-react";
import type { ExportListing } from "../api/client";
import { plural } from "../parts/wording";

/** What the link proof came to, in one line: all is there, or loudly what is not. */
export function ProofVerdict({
  proof,
}: {
  proof: Pick<ExportListing, "complete" | "intact" | "total" | "extra" | "madeWrong" | "faults">;
}) {
  const { complete, intact, total, extra, madeWrong, faults } = proof;
  if (complete) {
    return (
      <p className="flex items-center gap-1.5">
        <BadgeCheck aria-hidden size={17} className="shrink-0" />
        {total === 0 ? "The book has no links" : `All ${plural(total, "link")} intact`}
      </p>
    );
  }
  const lost = total - intact;
  return (
    <p className="flex items-start gap-1.5 font-semibold text-red">
      <TriangleAlert aria-hidden size={17} className="mt-0.5 shrink-0" />
      {[
        lost > 0 ? `${lost} of ${plural(total, "link")} lost or changed` : "",
        madeWrong > 0
          ? plural(madeWrong, "way to a note or place lost", "ways to notes and places lost")
          : "",
        extra > 0 ? plural(extra, "link that the manuscript lacks", "links that the manuscript lacks") : "",
        faults > 0 ? plural(faults, "other thing wrong", "other things wrong") : "",
      ]
        .filter(Boolean)
        .join("; ")}
    </p>
  );
}
