import type { Mutation } from "./mutation.ts";

/** A script takes every press. */
export const eventOnPage: Mutation = {
  name: "an event attribute on the page",
  pages(file, pick) {
    const path = pick(file.pages);
    if (path !== undefined)
      file.write(
        path,
        file.text(path).replace("<body", () => '<body onclick="event.preventDefault()"'),
      );
    return path !== undefined;
  },
};
