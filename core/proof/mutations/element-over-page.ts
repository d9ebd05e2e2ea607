import type { Mutation } from "./mutation.ts";

/** What is laid over takes every press. */
export const elementOverPage: Mutation = {
  name: "an element laid over the page",
  pages(file, pick) {
    const path = pick(file.pages);
    if (path === undefined) return false;
    const over = '<div style="position:fixed;top:0;left:0;width:100%;height:100%"></div>';
    file.write(
      path,
      file.text(path).replace("</body>", () => `${over}</body>`),
    );
    return true;
  },
};
