import type { Mutation } from "./mutation.ts";

/** It takes the words before it along. */
export const linkWidened: Mutation = {
  name: "a link over the words beside it",
  pages(file, pick) {
    const found = file.find(file.pages, /([\w,;] )(<a class="(?:web|email|file|place)"[^>]*>)/);
    const widened = pick(found);
    if (widened) file.replace(widened, `${widened.match[2]}${widened.match[1]}`);
    return widened !== undefined;
  },
};
