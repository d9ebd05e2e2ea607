import { sameDestination } from "../destination/destination.ts";
import type { ChapterRule } from "./finding.ts";
import { textBetween } from "../manuscript/positions.ts";

/** Two links with nothing but blanks between them and one destination. */
export const neighbours: ChapterRule = {
  id: "neighbours",
  title: "Two links side by side lead to one place",
  severity: "consider",
  source: "WCAG technique H2: adjacent links to one resource are combined",
  findInChapter: (doc, links) =>
    links.flatMap((use, i) => {
      const next = links[i + 1];
      if (!next || use.on === "hotspot" || next.on === "hotspot" || use.on === "reference") return [];
      if (!sameDestination(use.destination, next.destination)) return [];
      const between = next.from >= use.to ? textBetween(doc, use.to, next.from, "\n", "\ufffc") : "\n";
      return /^[ \u00a0]*$/.test(between)
        ? [
            {
              subject: next.id,
              message: `This link and “${use.text.trim()}” before it lead to the same place. Make one link of both.`,
            },
          ]
        : [];
    }),
};
