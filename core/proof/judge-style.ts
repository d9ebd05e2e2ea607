import postcss, { CssSyntaxError } from "postcss";

const none = /^(none|0(\.0+)?%?|initial|unset)$/;
const zero = /^0*\.?0*(px|pt|em|rem|%)?$/;

/** What each property of a style must not be where a link is to be seen and pressed (CSS 2.2, CSS UI 4), with why. */
const wrong: Record<string, { when: (value: string) => boolean; why: string }> = {
  display: { when: (value) => value === "none", why: "is not shown" },
  visibility: { when: (value) => value !== "visible", why: "is not shown" },
  "content-visibility": { when: (value) => value === "hidden", why: "is not shown" },
  "pointer-events": { when: (value) => value === "none", why: "takes no press" },
  opacity: { when: (value) => parseFloat(value) < (value.endsWith("%") ? 30 : 0.3), why: "is hardly seen" },
  position: {
    when: (value) => /^(absolute|fixed|sticky)$/.test(value),
    why: "lies over other things, or beside them",
  },
  "clip-path": { when: (value) => !none.test(value), why: "is cut" },
  clip: { when: (value) => value !== "auto", why: "is cut" },
  mask: { when: (value) => !none.test(value), why: "is cut" },
  transform: { when: (value) => !none.test(value), why: "is moved" },
  scale: { when: (value) => !none.test(value), why: "is moved" },
  translate: { when: (value) => !none.test(value), why: "is moved" },
  "font-size": { when: (value) => zero.test(value), why: "has no size" },
  "line-height": { when: (value) => zero.test(value), why: "has no size" },
  width: { when: (value) => zero.test(value), why: "has no size" },
  height: { when: (value) => zero.test(value), why: "has no size" },
  "max-width": { when: (value) => zero.test(value), why: "has no size" },
  "max-height": { when: (value) => zero.test(value), why: "has no size" },
  "text-indent": { when: (value) => value.startsWith("-"), why: "is moved" },
  margin: { when: (value) => value.includes("-"), why: "is moved" },
  "margin-left": { when: (value) => value.startsWith("-"), why: "is moved" },
  "margin-top": { when: (value) => value.startsWith("-"), why: "is moved" },
  color: { when: (value) => value === "transparent", why: "is not seen" },
};

/** Why a style keeps readers from a link that has it or stands within what has it; null where it does not. */
export function judgeStyle(declarations: string): string | null {
  // Most elements have none of their own.
  return declarations === "" ? null : (wrongIn(`a{${declarations}}`)[0]?.why ?? null);
}

/** The rules of a style sheet that keep readers from links or lie over them, by their selectors, with why. */
export function wrongRules(sheet: string): { selector: string; why: string }[] {
  return wrongIn(sheet);
}

function wrongIn(sheet: string): { selector: string; why: string }[] {
  const found: { selector: string; why: string }[] = [];
  try {
    postcss.parse(sheet).walkDecls(({ prop, value, parent }) => {
      const { when, why } = wrong[prop.toLowerCase()] ?? {};
      if (!when?.(value.trim().toLowerCase())) return;
      found.push({ selector: (parent as { selector?: string } | undefined)?.selector ?? "", why: why! });
    });
  } catch (error) {
    if (!(error instanceof CssSyntaxError)) throw error;
    found.push({ selector: "", why: `cannot be read: ${error.reason}` });
  }
  return found;
}
