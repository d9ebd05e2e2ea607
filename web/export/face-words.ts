import type { FaceFacts } from "@vennet/core/manuscript/book-fonts";

/** The names of weights (OpenType 1.9, `usWeightClass`). */
const weights: Record<number, string> = {
  100: "thin",
  200: "extra light",
  300: "light",
  400: "regular",
  500: "medium",
  600: "semibold",
  700: "bold",
  800: "extra bold",
  900: "black",
};

/** Which face of its family a font is, as “bold italic”. */
export function faceWords({
  weight,
  stretch,
  italic,
}: Pick<FaceFacts, "weight" | "stretch" | "italic">): string {
  const width = stretch < 100 ? "condensed" : stretch > 100 ? "expanded" : "";
  const heavy = weights[weight] ?? String(weight);
  const words = [width, italic && heavy === "regular" ? "" : heavy, italic ? "italic" : ""];
  return words.filter(Boolean).join(" ");
}
