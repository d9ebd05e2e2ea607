import type { Mutation } from "./mutation.ts";

/** What is laid over takes every press. */
export const ruleLaysOver: Mutation = {
  name: "a style rule that lays a thing over the page",
  pages(file) {
    const style = file.pathOf(/style\.css$/);
    if (style)
      file.write(
        style,
        `${file.text(style)}\nbody::after { content: ' '; position: fixed; top: 0; left: 0; right: 0; bottom: 0 }\n`,
      );
    const [page] = file.pages;
    if (!style)
      file.write(
        page!,
        file
          .text(page!)
          .replace(
            "</style>",
            () =>
              "body::after { content: ' '; position: fixed; top: 0; left: 0; right: 0; bottom: 0 }</style>",
          ),
      );
    return true;
  },
};
