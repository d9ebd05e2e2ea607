import type { Element, ElementContent } from "hast";
import { toString } from "hast-util-to-string";
import { areaOfShape, isWholePicture, lengthOf, type FoundArea } from "./areas.ts";

/** What SVG says of itself, under the names that parsers of HTML and of XML give it. */
function said({ properties }: Element, ...names: string[]): string | undefined {
  for (const name of names) {
    const value = properties[name];
    if (typeof value === "string" || typeof value === "number") return String(value);
  }
  return undefined;
}

/**
 * A picture in SVG as a picture, and links in it as its areas; what has no place on a picture stands behind it as a
 * link with its name (SVG 1.1, 17.1). Empty for a drawing that shows no picture and has no links.
 */
export function pictureOfSvg(svg: Element): ElementContent[] {
  const image = firstOf(svg, "image");
  const frame = image && {
    x: lengthOf(said(image, "x")) || 0,
    y: lengthOf(said(image, "y")) || 0,
    width: lengthOf(said(image, "width")),
    height: lengthOf(said(image, "height")),
  };
  const areas: FoundArea[] = [];
  const behind: ElementContent[] = [];
  let whole: FoundArea | null = null;
  const visit = (node: Element): void => {
    for (const child of node.children) {
      if (child.type !== "element") continue;
      const href = said(child, "href", "xLinkHref");
      if (child.tagName !== "a" || href === undefined) {
        visit(child);
        continue;
      }
      const title = said(child, "xLinkTitle", "title") ?? null;
      const name = titleOf(child) || said(child, "aria-label", "ariaLabel") || toString(child).trim() || href;
      const drawnAs = said(child, "dataFrame");
      const link = {
        href,
        alt: name,
        title: title === name ? null : title,
        ...(drawnAs === undefined ? {} : { frame: drawnAs }),
      };
      const shape = child.children.find(
        (one): one is Element =>
          one.type === "element" && ["rect", "circle", "ellipse", "polygon"].includes(one.tagName),
      );
      const area = shape && frame ? areaOfShape(shape.tagName, (key) => said(shape, key), frame, link) : null;
      const isTransformed = shape && said(shape, "transform") !== undefined;
      if (area && !isTransformed && whole === null && areas.length === 0 && isWholePicture(area))
        whole = area;
      else if (area && !isTransformed) areas.push(area);
      else
        behind.push(
          { type: "text", value: " " },
          {
            ...child,
            properties: { href, ...(link.title ? { title: link.title } : {}) },
            children: [{ type: "text", value: name }],
          },
        );
    }
  };
  visit(svg);
  if (!image) return behind;
  const alt = said(image, "aria-label", "ariaLabel") ?? said(svg, "aria-label", "ariaLabel") ?? titleOf(svg);
  const picture: Element = {
    ...image,
    tagName: "img",
    properties: {
      src: said(image, "href", "xLinkHref") ?? "",
      alt: alt ?? "",
      ...shownAs(svg),
      ...(areas.length > 0 ? { dataAreas: JSON.stringify(areas) } : {}),
    },
    children: [],
  };
  const { href, title } = (whole as FoundArea | null) ?? { href: null, title: null };
  const shown: ElementContent =
    href === null
      ? picture
      : { ...picture, tagName: "a", properties: { href, ...(title ? { title } : {}) }, children: [picture] };
  return [shown, ...behind];
}

/** How wide an export of ours shows a drawing, and whether it is one that says nothing. */
function shownAs({ properties }: Element): Element["properties"] {
  const { dataWidth, dataDecorative } = properties;
  return {
    ...(dataWidth === undefined ? {} : { dataWidth }),
    ...(dataDecorative === undefined ? {} : { dataDecorative }),
  };
}

function firstOf(parent: Element, name: string): Element | null {
  for (const child of parent.children) {
    if (child.type !== "element") continue;
    const found = child.tagName === name ? child : firstOf(child, name);
    if (found) return found;
  }
  return null;
}

function titleOf(parent: Element): string {
  const title = parent.children.find((one) => one.type === "element" && one.tagName === "title");
  return title ? toString(title).trim() : "";
}
