import type { Mutation } from "./mutation.ts";

/** Every relative link leads into the web. */
export const baseAddress: Mutation = {
  name: "a base address",
  pages(file, pick) {
    const path = pick(file.pages);
    if (path !== undefined)
      file.write(
        path,
        file.text(path).replace("</head>", () => '<base href="https://elsewhere.example/"/></head>'),
      );
    return path !== undefined;
  },
};
