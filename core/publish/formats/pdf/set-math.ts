import type { MathElement } from "../../../manuscript/math.ts";
import type { Shapes } from "./script-fonts.ts";

/** A formula as the typesetter takes it: letters and signs that the font for formulas may lack say by which they are set. */
export interface SetMath extends Omit<MathElement, "children"> {
  children: readonly (SetMath | string)[];
  fonts?: readonly string[];
}

/** How the letters of formulas are set. */
interface SettingOfMath {
  /** A text with what stands in place of letters that no font has. */
  shown: (text: string) => string;
  shapes: Shapes;
  familiesOf: (text: string) => readonly string[];
}

/** A formula as it is set. */
export function setMath(math: MathElement, setting: SettingOfMath): SetMath {
  const { shown, shapes, familiesOf } = setting;
  const children = math.children.map((child) =>
    typeof child === "string" ? shown(child) : setMath(child, setting),
  );
  const text = children.filter((child) => typeof child === "string").join("");
  const isOfMath = [...text].every((letter) => shapes.has("Noto Sans Math", letter.codePointAt(0)!));
  return { ...math, children, ...(isOfMath ? {} : { fonts: familiesOf(text) }) };
}
