import type { Mutation } from "./mutation.ts";

/** Who opens the page is led elsewhere. */
export const pageLeadsAway: Mutation = {
  name: "a page that leads away by itself",
  pages(file, pick) {
    const path = pick(file.pages);
    const away = '<meta http-equiv="refresh" content="0; url=https://elsewhere.example/"/></head>';
    if (path !== undefined)
      file.write(
        path,
        file.text(path).replace("</head>", () => away),
      );
    return path !== undefined;
  },
};
