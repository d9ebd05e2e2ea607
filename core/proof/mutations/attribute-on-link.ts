import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";
import { docxLinks, odtLinks } from "./opened/text-links.ts";

const ofPages = [
  ["download", "x"],
  ["ping", "https://elsewhere.example/"],
  ["contenteditable", "true"],
  ["popover", "manual"],
  ["xml:base", "https://elsewhere.example/"],
  ["aria-labelledby", "elsewhere"],
  ["aria-disabled", "true"],
  ["is", "x-link"],
] as const;

const ofOdt = [
  'office:target-frame-name="_blank"',
  'xlink:show="new"',
  'office:server-map="true"',
  'text:display="none"',
];

/** A press does something else, or readers are told something else. */
export const attributeOnLink: Mutation = {
  name: "an attribute of a link that may lead it elsewhere",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    const [name, value] = pick(ofPages)!;
    if (link) file.relink(link, { tag: withAttribute(link.tag, name, value) });
    return link !== undefined;
  },
  docx(file, pick) {
    const link = pick(docxLinks(file));
    const attribute = pick(['w:docLocation="elsewhere"', 'w:tgtFrame="_blank"'])!;
    if (link) file.replace(link, link.match[0].replace("<w:hyperlink ", `<w:hyperlink ${attribute} `));
    return link !== undefined;
  },
  odt(file, pick) {
    const link = pick(odtLinks(file));
    if (link) file.replace(link, link.match[0].replace("<text:a ", `<text:a ${pick(ofOdt)!} `));
    return link !== undefined;
  },
};
