import type { Element, ElementContent, Root } from "hast";
import { areaOfMap } from "./areas.ts";
import { allElements } from "./hast-nodes.ts";

/** The areas of image maps (HTML, 4.8.14) go with the pictures that use them; those that none uses become links. */
export function areasOfMaps(tree: Root | Element): void {
  const all = allElements(tree);
  const users = all.filter(
    ({ tagName, properties }) => tagName === "img" && typeof properties["useMap"] === "string",
  );
  for (const map of all) {
    if (map.tagName !== "map") continue;
    const areas = allElements(map).flatMap((one) => (one.tagName === "area" ? (areaOfMap(one) ?? []) : []));
    const name = [map.properties["name"], map.properties["id"]].map(String);
    const pictures = users.filter(({ properties }) =>
      name.includes(String(properties["useMap"]).replace(/^#/, "")),
    );
    for (const picture of pictures) picture.properties["dataAreas"] = JSON.stringify(areas);
    map.tagName = "span";
    map.children = map.children.flatMap((child): ElementContent[] => {
      const isArea = child.type === "element" && child.tagName === "area";
      if (!isArea || pictures.length > 0) return isArea ? [] : [child];
      const area = areaOfMap(child);
      const link: Element = { ...child, tagName: "a", properties: { href: area?.href ?? "" } };
      return area
        ? [
            { ...link, children: [{ type: "text", value: area.alt }] },
            { type: "text", value: " " },
          ]
        : [];
    });
  }
}
