import type { Element } from "hast";

/** What an element says that it is: its roles (DPUB-ARIA 1.1) and its types (EPUB 3.3, `epub:type`), in small letters. */
export function semanticsOf({ properties }: Element): string[] {
  return [properties["role"], properties["epubType"] ?? properties["epub:type"]]
    .flat()
    .flatMap((said) => (typeof said === "string" ? said.toLowerCase().split(/\s+/) : []))
    .filter(Boolean);
}
