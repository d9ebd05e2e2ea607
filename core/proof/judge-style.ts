import postcss, { CssSyntaxError } from "postcss";
import { styleProperties } from "./style-properties.ts";

/** Why a style may keep readers from a link that has it or stands within what has it; null where it cannot. */
export function judgeStyle(declarations: string): string | null {
  // Most elements have none of their own.
  return declarations === "" ? null : (wrongIn(`a{${declarations}}`)[0]?.why ?? null);
}

/**
 * The rules of a style sheet that may keep readers from links or lie over them, by their selectors, with why: all that do
 * something of which it is not known that it cannot.
 */
export function wrongRules(sheet: string): { selector: string; why: string }[] {
  return wrongIn(sheet);
}

function wrongIn(sheet: string): { selector: string; why: string }[] {
  const found: { selector: string; why: string }[] = [];
  try {
    const root = postcss.parse(sheet);
    root.walkAtRules("import", ({ params }) => {
      found.push({ selector: `@import ${params}`, why: "looks as another file says" });
    });
    root.walkDecls((declaration) => {
      const name = declaration.prop.toLowerCase();
      // What a property of one's own does is told where it is used.
      if (name.startsWith("--")) return;
      const property = styleProperties.get(name);
      if (property?.leaves(declaration.value.trim().toLowerCase(), declaration)) return;
      const selector = (declaration.parent as { selector?: string } | undefined)?.selector ?? "";
      found.push({ selector, why: property?.why ?? `may be hidden, moved or kept from presses: “${name}”` });
    });
  } catch (error) {
    if (!(error instanceof CssSyntaxError)) throw error;
    found.push({ selector: "", why: `cannot be read: ${error.reason}` });
  }
  return found;
}
