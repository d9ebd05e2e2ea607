import {
  Math as OfficeMath,
  MathFraction,
  MathLimitLower,
  MathLimitUpper,
  MathRadical,
  MathRun,
  MathSubScript,
  MathSubSuperScript,
  MathSuperScript,
  type MathComponent,
  type ParagraphChild,
} from "docx";
import { isMathToken, lettersOfMath, type MathElement } from "../../../manuscript/math.ts";

/** A formula in the elements of a text document (ECMA-376-1, 22.1); what they lack stands in a row. */
export function mathOfDocx(math: MathElement): ParagraphChild {
  return new OfficeMath({ children: componentsOf(math) });
}

function componentsOf(math: MathElement): MathComponent[] {
  if (isMathToken(math.name)) return [new MathRun(lettersOfMath(math))];
  if (math.name === "mspace") return [new MathRun(" ")];
  const parts = math.children.map((child) =>
    typeof child === "string" ? [new MathRun(child)] : componentsOf(child),
  );
  const [children = [], second = [], third = []] = parts;
  switch (math.name) {
    case "mfrac":
      return [new MathFraction({ numerator: children, denominator: second })];
    case "msqrt":
      return [new MathRadical({ children: parts.flat() })];
    case "mroot":
      return [new MathRadical({ children, degree: second })];
    case "msub":
      return [new MathSubScript({ children, subScript: second })];
    case "msup":
      return [new MathSuperScript({ children, superScript: second })];
    case "msubsup":
      return [new MathSubSuperScript({ children, subScript: second, superScript: third })];
    case "munder":
      return [new MathLimitLower({ children, limit: second })];
    case "mover":
      return [new MathLimitUpper({ children, limit: second })];
    case "munderover":
      return [
        new MathLimitUpper({ children: [new MathLimitLower({ children, limit: second })], limit: third }),
      ];
    default:
      return parts.flat();
  }
}
