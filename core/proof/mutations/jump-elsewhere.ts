import { PdfString } from "../../pdf/pdf-values.ts";
import type { Mutation } from "./mutation.ts";
import { withHref, type LinkElement } from "./opened/open-pages.ts";
import { markdownLinks } from "./opened/text-links.ts";

/** It lands where another link should. */
export const jumpElsewhere: Mutation = {
  name: "a jump to another place",
  pages(file, pick) {
    const links = file.ownLinks().filter(({ href }) => href.includes("#"));
    const link = pick(links);
    const whole = ({ href, path }: LinkElement): string =>
      href.startsWith("#") ? `${path.split("/").at(-1)}${href}` : href;
    const other = pick(links.filter((one) => link && whole(one) !== whole(link)));
    if (!link || !other) return false;
    file.relink(link, { tag: withHref(link.tag, other.path === link.path ? other.href : whole(other)) });
    return true;
  },
  pdf(file, pick) {
    const links = file.inward();
    const link = pick(links);
    const target = (dest: unknown): string => (dest instanceof PdfString ? dest.bytes : "");
    const other = pick(
      links.filter(
        ({ dictionary }) => target(dictionary.get("Dest")) !== target(link?.dictionary.get("Dest")),
      ),
    );
    if (!link || !other) return false;
    file.set(link, "Dest", other.dictionary.get("Dest")!);
    return true;
  },
  markdown(file, pick) {
    const links = markdownLinks(file, /^#/);
    const link = pick(links);
    const other = pick(links.filter(({ match }) => match[2] !== link?.match[2]));
    if (!link || !other) return false;
    file.replace(
      link,
      link.match[0].replace(link.match[2]!, () => other.match[2]!),
    );
    return true;
  },
  docx(file, pick) {
    const anchors = file.find([file.pathOf(/word\/document\.xml$/)!], /w:anchor="([^"]*)"/);
    const anchor = pick(anchors);
    const other = pick(anchors.filter(({ match }) => match[1] !== anchor?.match[1]));
    if (!anchor || !other) return false;
    file.replace(anchor, other.match[0]);
    return true;
  },
  odt(file, pick) {
    const jumps = file.find([file.pathOf(/content\.xml$/)!], /xlink:href="#[^"]*"/);
    const jump = pick(jumps);
    const other = pick(jumps.filter(({ match }) => match[0] !== jump?.match[0]));
    if (!jump || !other) return false;
    file.replace(jump, other.match[0]);
    return true;
  },
};
