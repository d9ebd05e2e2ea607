import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** Each of two links leads where the other should. */
export const addressesSwapped: Mutation = {
  name: "two addresses swapped",
  pages(file, pick) {
    const links = file.ownLinks();
    const one = pick(links);
    const other = pick(links.filter(({ href, path }) => href !== one?.href && path === one?.path));
    if (!one || !other) return false;
    file.swap(one, other, (link, from) => {
      const tag = (link as typeof one).tag;
      return `<a${withHref(tag, (from as typeof one).href)}>${(link as typeof one).inner}</a>`;
    });
    return true;
  },
  pdf(file, pick) {
    const links = file.outward();
    const one = pick(links);
    const other = pick(
      links.filter(({ dictionary }) => one && file.uri(dictionary) !== file.uri(one.dictionary)),
    );
    if (!one || !other) return false;
    file.set(one, "A", file.objects.read(other.dictionary.get("A")));
    file.set(other, "A", file.objects.read(one.dictionary.get("A")));
    return true;
  },
  markdown(file, pick) {
    const links = markdownLinks(file);
    const one = pick(links);
    const other = pick(links.filter(({ match }) => match[2] !== one?.match[2]));
    if (!one || !other) return false;
    file.swap(one, other, ({ match }, from) => match[0].replace(match[2]!, () => from.match[2]!));
    return true;
  },
};
