import type { Mutation } from "./mutation.ts";

/** No link is shown. */
export const ruleHidesLinks: Mutation = {
  name: "a style rule that hides links",
  pages(file) {
    const style = file.pathOf(/style\.css$/);
    if (style) file.write(style, `${file.text(style)}\na { display: none }\n`);
    const [page] = file.pages;
    if (!style)
      file.write(
        page!,
        file.text(page!).replace("</style>", () => "a { display: none }</style>"),
      );
    return true;
  },
};
