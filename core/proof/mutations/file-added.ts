import type { Mutation } from "./mutation.ts";

/** Whoever serves or opens the folder may do by it what no page says. */
export const fileAdded: Mutation = {
  name: "a file that no page needs",
  web(file, pick) {
    if (!file.pathOf(/^index\.html$/)) return false;
    file.write(
      pick([".htaccess", "_redirects", "sw.js", "other.css"])!,
      "Redirect / https://elsewhere.example/",
    );
    return true;
  },
};
