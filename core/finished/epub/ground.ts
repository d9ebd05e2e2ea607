import { FinishedError } from "../errors.ts";
import { inLines } from "./inline-elements.ts";
import type { EpubLink, EpubPage } from "./epub-page.ts";
import type { SourceElement, Stretch, XhtmlSource } from "./xhtml-source.ts";

/** Where in the source the links of a page stand that it has from its file. @param elements all that were links in it */
export function stretchesOfLinks(
  elements: readonly SourceElement[],
  { links, untouched }: Pick<EpubPage, "links" | "untouched">,
): Stretch[] {
  return [...links, ...untouched].flatMap(({ from }): Stretch[] => {
    const element = from === null ? undefined : elements[from];
    return element ? [[element.open[0], (element.close ?? element.open)[1]]] : [];
  });
}

/**
 * Where in the source a new link begins and ends.
 * @param others where the other links of the page stand
 * @throws FinishedError `page` where what is picked cannot be a link as one
 */
export function groundIn(
  source: XhtmlSource,
  others: readonly Stretch[],
  { on, words }: Pick<EpubLink, "on" | "words">,
): Stretch {
  const told = `“${words.slice(0, 80)}”`;
  const picture = on.kind === "picture" ? source.elements[on.element] : null;
  if (on.kind === "picture" && !picture)
    throw new FinishedError("changed", "The page is another than that on which a picture was picked.");
  const text = source.text.slice(on.from, on.to).replace(/\s+/g, " ").trim();
  if (!picture && (text === "" || text !== words.replace(/\s+/g, " ").trim()))
    throw new FinishedError("changed", `The page does not have ${told} where it was picked.`);
  const stretches = source.stretchesOf(on.from, on.to);
  const all: Stretch = picture
    ? [picture.open[0], (picture.close ?? picture.open)[1]]
    : [stretches[0]![0], stretches.at(-1)![1]];
  const around = widened(source, all);
  const meets = (stretch: Stretch): boolean => stretch[0] < around[1] && stretch[1] > around[0];
  if (others.some(meets)) throw new FinishedError("page", `${told} is in a link already, or has one in it.`);
  const within = [...source.withTagsIn(around)];
  if (within.some(({ name }) => !inLines.test(name)))
    throw new FinishedError("page", `${told} goes over several paragraphs. A link lies within one.`);
  if (within.some(({ open, close }) => !(meets(open) && (close === null || meets(close)))))
    throw new FinishedError(
      "page",
      `${told} begins or ends in the middle of words that are set apart, as emphasised words are. Take all of them, or none.`,
    );
  return around;
}

/** A stretch with the tags of elements all of whose words are in it. */
function widened(source: XhtmlSource, stretch: Stretch): Stretch {
  let [from, to] = stretch;
  const isSetApart = ({ name }: SourceElement): boolean => inLines.test(name) && name !== "a";
  for (;;) {
    const { before, behind } = source.around([from, to]);
    if (before?.close && isSetApart(before) && before.close[0] <= to) [from] = before.open;
    else if (behind?.close && isSetApart(behind) && behind.open[0] >= from) [, to] = behind.close;
    else return [from, to];
  }
}
