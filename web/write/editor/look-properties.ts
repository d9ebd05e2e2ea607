import { lookedKinds, type LinkLooks } from "@vennet/core/manuscript/looks";
import type { CSSProperties } from "react";

/** The book's link looks as the properties that the page's style sheet reads. */
export function lookProperties(looks: LinkLooks): CSSProperties {
  const properties: Record<string, string> = {};
  for (const kind of lookedKinds) {
    const { colour, underline, bold } = looks[kind];
    properties[`--${kind}-colour`] = colour;
    properties[`--${kind}-line`] = underline === "none" ? "none" : `underline ${underline}`;
    properties[`--${kind}-weight`] = bold ? "700" : "inherit";
  }
  return properties as CSSProperties;
}
