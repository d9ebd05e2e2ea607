import type { Mutation } from "./mutation.ts";

/** A press goes through every link. */
export const ruleTakesNoPress: Mutation = {
  name: "a style rule by which links take no press",
  pages(file) {
    const style = file.pathOf(/style\.css$/);
    if (style) file.write(style, `${file.text(style)}\n@media screen { .web { pointer-events: none } }\n`);
    const [page] = file.pages;
    if (!style)
      file.write(
        page!,
        file.text(page!).replace("</style>", () => "@media screen { .web { pointer-events: none } }</style>"),
      );
    return true;
  },
};
