import { hotspotBox, noFrame, type Hotspot } from "../../manuscript/hotspot.ts";
import { pictureWords, type LinkAttrs, type PictureAttrs } from "../../manuscript/attributes.ts";
import { attributeXml, escapeXml } from "./escape-xml.ts";
import { hrefOf, linkId, type PageContext, type ShownPicture } from "./page-context.ts";

/**
 * The XHTML of a picture: an `img`, or SVG where it has areas that are links.
 * @param link the picture's own link, where its areas make an `a` around it impossible
 */
export function pictureXhtml(picture: PictureAttrs, link: LinkAttrs | null, context: PageContext): string {
  const { file, alt, decorative, width, hotspots } = picture;
  const shown = file === null ? null : context.picture(file);
  if (!shown) return escapeXml(pictureWords(picture));
  const size =
    (width === null ? "" : ` class="width-${Math.round(width)}" data-width="${width}"`) +
    (decorative ? ' data-decorative=""' : "");
  if (hotspots.length === 0) return `<img src="${escapeXml(shown.href)}" alt="${attributeXml(alt)}"${size}/>`;
  // SVG areas scale with the picture and need no script, unlike a map of pixels (SVG 1.1, 17.1).
  context.holds.add("svg");
  const all = link ? [wholePicture(link, alt), ...hotspots] : hotspots;
  const areas = all.map((hotspot) => areaSvg(hotspot, shown, context));
  return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 ${shown.width} ${shown.height}" width="${shown.width}" height="${shown.height}"${size}><image width="${shown.width}" height="${shown.height}" xlink:href="${escapeXml(shown.href)}" role="img" aria-label="${attributeXml(alt)}"/>${areas.join("")}</svg>`;
}

function wholePicture({ id, destination, description }: LinkAttrs, alt: string): Hotspot {
  const points: Hotspot["points"] = [
    [0, 0],
    [1, 1],
  ];
  return { id, destination, description, shape: "rectangle", points, alt, frame: noFrame };
}

function areaSvg(hotspot: Hotspot, picture: ShownPicture, context: PageContext): string {
  const href = hrefOf(context, hotspot.destination);
  if (href === null) return "";
  const box = hotspotBox(hotspot);
  const across = (share: number): number => Math.round(share * picture.width * 100) / 100;
  const down = (share: number): number => Math.round(share * picture.height * 100) / 100;
  const { line, thickness, colour } = hotspot.frame;
  const framed = line === "solid" || line === "dashed";
  const look = `fill="#ffffff" fill-opacity="0"${framed ? ` stroke="${colour}" stroke-width="${thickness}"` : ""}${line === "dashed" ? ` stroke-dasharray="${thickness * 3} ${thickness * 2}"` : ""}`;
  const shape =
    hotspot.shape === "polygon"
      ? `<polygon points="${hotspot.points.map(([x, y]) => `${across(x)},${down(y)}`).join(" ")}" ${look}/>`
      : hotspot.shape === "ellipse"
        ? `<ellipse cx="${across(box.x + box.width / 2)}" cy="${down(box.y + box.height / 2)}" rx="${across(box.width / 2)}" ry="${down(box.height / 2)}" ${look}/>`
        : `<rect x="${across(box.x)}" y="${down(box.y)}" width="${across(box.width)}" height="${down(box.height)}" ${look}/>`;
  const underline =
    line === "underlined"
      ? `<path d="M${across(box.x)} ${down(box.y + box.height)}H${across(box.x + box.width)}" stroke="${colour}" stroke-width="${thickness}"/>`
      : "";
  const title =
    (hotspot.description ? ` xlink:title="${attributeXml(hotspot.description)}"` : "") +
    (line === "none" ? "" : ` data-frame="${escapeXml(JSON.stringify(hotspot.frame))}"`) +
    linkId(context, hotspot.id);
  // Its title child is the area's name (SVG Accessibility API Mappings, 8.1.1). Programs know the address of SVG 2
  // or that of SVG 1.1; some take what has the latter for a picture to load.
  return `<a href="${escapeXml(href)}" xlink:href="${escapeXml(href)}"${title}><title>${escapeXml(hotspot.alt)}</title>${shape}${underline}</a>`;
}
