import type { OpenAnnotation, OpenPdf } from "./open-pdf.ts";

/** Moves an annotation's area, and the lines that it is made of, up the page. @param points how far */
export function moveBy(file: OpenPdf, { ref, dictionary }: OpenAnnotation, points: number): void {
  const rect = file.objects.read(dictionary.get("Rect")) as number[];
  const moved = (values: number[]): number[] =>
    values.map((value, i) => (i % 2 === 1 ? value + points : value));
  const next = new Map(dictionary).set("Rect", moved(rect));
  const lines = file.objects.read(dictionary.get("QuadPoints"));
  if (Array.isArray(lines)) next.set("QuadPoints", moved(lines as number[]));
  file.objects.change(ref, next);
}
