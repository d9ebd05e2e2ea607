import { kindNames } from "@vennet/core/destination/kinds/kinds";
import type { LinkLooks } from "@vennet/core/manuscript/looks";

/** The book's link looks as rules for the page on which it is written. */
export function LinkLookStyle({ looks }: { looks: LinkLooks }) {
  const rules = kindNames.map((kind) => {
    const { colour, underline, bold } = looks[kind];
    const line = underline === "none" ? "none" : `underline ${underline}`;
    return `.manuscript a:where([data-kind="${kind}"]) { --link-colour: ${colour}; --link-line: ${line}; --link-weight: ${bold ? "700" : "inherit"}; }`;
  });
  // Weaker than what a single link says of itself.
  return <style>{rules.join("\n")}</style>;
}
