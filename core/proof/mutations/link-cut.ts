import type { Mutation } from "./mutation.ts";

/** Its words are two links. */
export const linkCut: Mutation = {
  name: "a link cut in two",
  pages(file, pick) {
    const link = pick(file.ownLinks().filter(({ inner }) => / [a-z]/.test(inner) && !inner.includes("<")));
    if (!link) return false;
    const [first = "", ...rest] = link.inner.split(" ");
    const tag = link.tag.replace(/ id="[^"]*"/, "");
    file.replace(link, `<a${link.tag}>${first}</a> <a${tag}>${rest.join(" ")}</a>`);
    return true;
  },
};
