import { addressCases } from "./addresses.ts";
import { addressAroundCases } from "./around-addresses.ts";
import { answerCases } from "./answers.ts";
import type { Cases } from "./case.ts";
import { fileCases } from "./files.ts";
import { lookCases } from "./looks.ts";
import { mailCases } from "./mail.ts";
import { casesOnPages, pageCases } from "./pages.ts";
import { pictureCases } from "./pictures.ts";
import { placeCases } from "./places.ts";
import { shownCases } from "./shown.ts";
import { wordCases } from "./words.ts";

/** The labelled cases of every rule. */
export const allCases: readonly Cases[] = [
  ...addressCases,
  ...addressAroundCases,
  ...mailCases,
  ...answerCases,
  ...fileCases,
  ...placeCases,
  ...wordCases,
  ...lookCases,
  ...shownCases,
  ...pictureCases.map(withPages),
  ...pageCases,
];

function withPages(cases: Cases): Cases {
  const more = Object.entries(casesOnPages).find(([rule]) => rule === cases.rule)?.[1];
  if (!more) return cases;
  return { ...cases, wrong: [...cases.wrong, ...more.wrong], right: [...cases.right, ...more.right] };
}
