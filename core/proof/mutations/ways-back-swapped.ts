import type { Mutation } from "./mutation.ts";
import { withHref } from "./opened/open-pages.ts";
import { isPair } from "./opened/text-links.ts";

/** Each leads to the other mark. */
export const waysBackSwapped: Mutation = {
  name: "two ways back of a note swapped",
  pages(file, pick) {
    const backs = file.links(/role="doc-backlink"/);
    const one = pick(backs.filter((back, i) => isPair(back.href, backs[i + 1]?.href)));
    const other = one && backs[backs.indexOf(one) + 1];
    if (!one || !other) return false;
    file.swap(one, other, (back, from) => {
      const { tag, inner } = back as typeof one;
      return `<a${withHref(tag, (from as typeof one).href)}>${inner}</a>`;
    });
    return true;
  },
  pdf(file, pick) {
    const backs = file.inward().filter(({ dictionary }) => /^ref-/.test(file.leadsTo(dictionary)));
    const one = pick(
      backs.filter((back, i) => {
        const next = backs[i + 1];
        return next && isPair(file.leadsTo(back.dictionary), file.leadsTo(next.dictionary));
      }),
    );
    const other = one && backs[backs.indexOf(one) + 1];
    if (!one || !other) return false;
    file.set(one, "Dest", other.dictionary.get("Dest")!);
    file.set(other, "Dest", one.dictionary.get("Dest")!);
    return true;
  },
};
