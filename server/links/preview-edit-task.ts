import { writeDestination } from "@vennet/core/destination/destination";
import type { LinkEffect } from "@vennet/core/manuscript/change-links";
import type { PublicationLink } from "@vennet/core/publication/linked-part";
import { readPart } from "../chapters/read-part.ts";
import { effectOf } from "./link-effects.ts";
import type { EditPreviewAnswer, LinkEdit } from "./links.dto.ts";

const previewed = 500;

/** What an edit would make of some links of each chapter, which are named by their ids. */
export function run({
  chapters,
  edit,
}: {
  chapters: { id: string; title: string; document: string; ids: ReadonlySet<string> }[];
  edit: LinkEdit;
}): EditPreviewAnswer {
  const answer: EditPreviewAnswer = { rows: [], changing: 0, unchanged: 0 };
  const effectOn = effectOf(edit);
  for (const { id: chapterId, title, document, ids } of chapters) {
    for (const use of readPart(document).links()) {
      if (!ids.has(use.id)) continue;
      const effect = effectOn(use);
      if (effect === null) {
        answer.unchanged++;
        continue;
      }
      answer.changing++;
      if (answer.rows.length === previewed) continue;
      const { id: linkId, text } = use;
      answer.rows.push({ chapterId, linkId, chapter: title, text, ...told(use, effect) });
    }
  }
  return answer;
}

function told(use: PublicationLink, effect: Exclude<LinkEffect, null>): { before: string; after: string } {
  if (effect === "remove") return { before: writeDestination(use.destination), after: "" };
  if (effect.destination)
    return { before: writeDestination(use.destination), after: writeDestination(effect.destination) };
  if (effect.text !== undefined) return { before: use.text, after: effect.text };
  return { before: use.description ?? "", after: effect.description ?? "" };
}
