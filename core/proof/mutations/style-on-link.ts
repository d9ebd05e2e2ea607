import type { Mutation } from "./mutation.ts";
import { withAttribute } from "./opened/open-pages.ts";

/** Ways of style to take something from sight or from under a press. */
export const harmfulStyles = [
  "font: 0/0 serif",
  "font-size: 1px",
  "position: relative; top: 9999px",
  "color: #0000",
  "color: rgba(0, 0, 0, 0)",
  "color: white; background: white",
  "-webkit-text-fill-color: transparent",
  "filter: opacity(0)",
  "zoom: 0",
  "rotate: y 90deg",
  "display: block; margin-left: calc(0px - 9999px)",
  "--shown: none; display: var(--shown)",
  "display: block; margin-inline-start: -9999px",
  "display: inline-block; inline-size: 0; overflow: hidden",
  "letter-spacing: -2em",
  "display: block; height: 0.01px; overflow: clip",
  "mask-image: linear-gradient(transparent, transparent)",
  "content: none",
  "displa\\79: none",
  "animation: away 0s forwards",
  "interactivity: inert",
  "opacity: calc(0)",
  "offset-path: path('M 0 -9999')",
  "position: relative; z-index: -1",
  "vertical-align: -9999px",
  "writing-mode: vertical-rl",
  "all: unset",
] as const;

/** It is not seen where it is, or takes no press. */
export const styleOnLink: Mutation = {
  name: "a style that may hide a link",
  pages(file, pick) {
    const link = pick(file.ownLinks());
    if (link) file.relink(link, { tag: withAttribute(link.tag, "style", pick(harmfulStyles)!) });
    return link !== undefined;
  },
};
