import type { Mutation } from "./mutation.ts";

/** No link is seen. */
export const ruleLettersOfNoSize: Mutation = {
  name: "a style rule that leaves links no size",
  pages(file) {
    const style = file.pathOf(/style\.css$/);
    if (style) file.write(style, `${file.text(style)}\na.web { font-size: 0px }\n`);
    const [page] = file.pages;
    if (!style)
      file.write(
        page!,
        file.text(page!).replace("</style>", () => "a.web { font-size: 0px }</style>"),
      );
    return true;
  },
};
