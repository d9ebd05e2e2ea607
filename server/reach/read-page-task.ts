import { PageReader, type PageFacts, type WantedOfPage } from "@vennet/core/reach/page-reader";

/**
 * Reads what has come of a page.
 * @param input.wanted what is looked for in it
 * @param input.isWhole whether it is all of it
 */
export function run({ text, wanted, isWhole }: { text: string; wanted: WantedOfPage; isWhole: boolean }): {
  facts: PageFacts;
  hasEnough: boolean;
} {
  const reader = new PageReader(wanted);
  reader.push(text);
  if (isWhole) reader.end();
  return { facts: reader.facts(), hasEnough: reader.hasEnough };
}
