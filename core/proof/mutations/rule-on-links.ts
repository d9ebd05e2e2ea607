import type { Mutation } from "./mutation.ts";
import { harmfulStyles } from "./style-on-link.ts";

/** No link of its kind is seen where it is, or takes a press: on some screens, when pointed at, or always. */
export const ruleOnLinks: Mutation = {
  name: "a style rule that may hide links",
  pages(file, pick) {
    const style = pick(harmfulStyles)!;
    const rules = [
      `a.web { ${style} }`,
      `@media (max-width: 700px) { a { ${style} } }`,
      `a:hover { ${style} }`,
      `p { & a { ${style} } }`,
      `@layer away { p { ${style} } }`,
      "@import url(other.css);",
      "p::before { content: ''; float: left; width: 100%; height: 900px; margin-bottom: -900px }",
    ];
    file.addRules(pick(rules)!);
    return true;
  },
};
