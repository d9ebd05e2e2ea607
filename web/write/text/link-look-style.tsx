import { kindNames } from "@vennet/core/destination/kinds/kinds";
import { lookVariables, type LinkLooks } from "@vennet/core/manuscript/looks";

/** The book's link looks as rules for the page on which it is written. */
export function LinkLookStyle({ looks }: { looks: LinkLooks }) {
  const rules = kindNames.map(
    (kind) => `.manuscript a:where([data-kind="${kind}"]) { ${lookVariables(looks[kind])} }`,
  );
  // Weaker than what a single link says of itself.
  return <style>{rules.join("\n")}</style>;
}
