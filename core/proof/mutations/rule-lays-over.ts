import type { Mutation } from "./mutation.ts";

/** What is laid over takes every press. */
export const ruleLaysOver: Mutation = {
  name: "a style rule that lays a thing over the page",
  pages(file) {
    file.addRules("body::after { content: ' '; position: fixed; top: 0; left: 0; right: 0; bottom: 0 }");
    return true;
  },
};
