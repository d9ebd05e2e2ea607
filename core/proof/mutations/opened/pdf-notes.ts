import { PdfRef, type PdfValue } from "../../../pdf/pdf-values.ts";
import type { OpenAnnotation, OpenElement, OpenPdf } from "./open-pdf.ts";

/** The links from marks to notes at the foot of pages. */
export function noteMarks(file: OpenPdf): OpenAnnotation[] {
  // The label of a list's item is the author's, as a term is.
  return under(file, ({ role, parent }) => role === "Lbl" && parent?.role !== "LI");
}

/** The entries of the list of contents. */
export function contentsEntries(file: OpenPdf): OpenAnnotation[] {
  return under(file, ({ role }) => role === "TOCI");
}

/** Whether a value is a reference to an object. */
export function isRefTo(value: PdfValue | undefined, { number }: PdfRef): boolean {
  return value instanceof PdfRef && value.number === number;
}

/** The links within elements of a kind. */
function under(file: OpenPdf, isKind: (element: OpenElement) => boolean): OpenAnnotation[] {
  const links = file.links();
  const isUnder = (element: OpenElement | null): boolean =>
    element !== null && (isKind(element) || isUnder(element.parent));
  return file
    .elements()
    .filter((element) => element.role === "Link" && isUnder(element))
    .flatMap((element) =>
      file.kids(element).flatMap((kid) => {
        const object = file.objects.read(kid);
        const ref = object instanceof Map ? object.get("Obj") : undefined;
        return links.filter((link) => isRefTo(ref, link.ref));
      }),
    );
}
