import { isSameArea, isShareOf } from "./areas.ts";
import type { ExportedLink, ExportReading, FormatTraits } from "./exported-link.ts";
import type { ManuscriptLink } from "./manuscript-links.ts";
import { lettersOf } from "./letters.ts";

/** Why a link of a picture is not where it should be on it; null where it is. */
export function whyBeside(
  link: ManuscriptLink,
  pieces: readonly ExportedLink[],
  reading: ExportReading,
): string | null {
  const wanted = link.area;
  if (wanted === null) return null;
  const isThere = ({ area, page, boxes }: ExportedLink): boolean => {
    const isRight = area === null ? link.isWholePicture : isSameArea(area, wanted);
    if (reading.traits.hasRoles && !isRight) return false;
    const pictures = page === null ? [] : (reading.pictures.get(page) ?? []);
    return (
      pictures.length === 0 ||
      pictures.some((picture) => boxes.some((box) => isShareOf(box, picture, wanted)))
    );
  };
  // A link that goes on in words lies on its picture with its first piece.
  const onPicture = link.isWholePicture && link.parts.length > 1 ? pieces.slice(0, 1) : pieces;
  return onPicture.every(isThere) ? null : "Its area is not where it should be on the picture.";
}

/** What is told of a link besides its words, where it is something else than the author said; null where it is not. */
export function whyMisnamed(link: ManuscriptLink, found: ExportedLink, traits: FormatTraits): string | null {
  const said = found.description;
  const told = `The description in the file is “${said ?? ""}”.`;
  if (traits.isPaged) {
    // An area has no words in a PDF; what it is stands in its description (ISO 14289-1, 7.18.5).
    const wanted = link.description ?? link.screenName ?? (link.isArea ? link.text : null);
    if (wanted !== null ? said !== wanted : !saysWhere(said, link)) return told;
  } else if (said !== link.description) return told;
  if (traits.hasRoles && found.role !== link.role)
    return `In the file it says that it is “${found.role ?? "a link"}”.`;
  const opensWindow = traits.opensWindows && link.opensWindow;
  if (found.opensWindow !== opensWindow)
    return opensWindow
      ? "In the file it opens no window of its own."
      : "In the file it opens a window of its own.";
  const name = link.screenName !== null && traits.hasRoles ? link.screenName : null;
  // Who follows a link into a new window is told before, behind its own words.
  const isName = opensWindow ? (found.name?.startsWith(link.parts[0] ?? "") ?? false) : found.name === name;
  return isName ? null : `A screen reader calls it “${found.name ?? found.text}”.`;
}

/** Whether what is said of a link without a description of its author's tells its words, or those of its place. */
function saysWhere(
  said: string | null,
  { text, parts, name, placeWords, expected }: ManuscriptLink,
): boolean {
  if (said === null) return false;
  const letters = lettersOf(said);
  const isWeb = expected?.kind === "address" && /^https?:/.test(expected.value);
  const saysHost = !isWeb || letters.includes(lettersOf(new URL(expected.value).hostname));
  const names = [text, ...parts, ...(expected?.kind === "place" ? [name, placeWords ?? name] : [])];
  return saysHost && names.some((one) => letters.includes(lettersOf(one)));
}

/** Whether a way back from a note lands on its mark: on a page, on the line in which that stands. */
export function showsMark(
  { landing, linksThere = [] }: Extract<ExportedLink["destination"], { kind: "place" }>,
  mark: string,
  traits: FormatTraits,
): boolean {
  return traits.isPaged ? linksThere.includes(mark) : landing?.trim() === mark;
}
