import type { Attrs } from "prosemirror-model";
import { isCodeLanguage } from "./attribute-checks.ts";
import { assertDestination, readHref } from "../destination/destination.ts";
import { kindOf } from "../destination/kinds/kinds.ts";
import { assertHotspots, type Hotspot } from "./hotspot.ts";
import { newId } from "./ids.ts";
import { assertOwnLook, type OwnLook } from "./looks.ts";
import { assertMath } from "./math.ts";
import { isSetOff, type SetOff } from "./set-off.ts";

// What the schema reads of elements that are pasted; whatever is not as it should be is refused.

/** What a cell of a table spans, and how it is aligned. */
export function cellFromDom(dom: HTMLElement): Attrs {
  const align = dom.style.textAlign || dom.getAttribute("align");
  return {
    colspan: Number(dom.getAttribute("colspan") ?? 1),
    rowspan: Number(dom.getAttribute("rowspan") ?? 1),
    align: align === "left" || align === "center" || align === "right" ? align : null,
  };
}

/** How the lines of a paragraph are aligned, where that is not as the book has it. */
export function lineAlignFromDom(dom: HTMLElement): "center" | "end" | null {
  const align = dom.style.textAlign || dom.getAttribute("align");
  if (align === "center") return "center";
  return align === "end" || align === "right" ? "end" : null;
}

/** How a block is set off from the text around it. */
export function setOffFromDom({ dataset }: HTMLElement): SetOff {
  return isSetOff(dataset["part"]) ? dataset["part"] : "quotation";
}

/** Whether what an item tells to do is done; null for what is no task. */
export function doneFromDom({ dataset }: HTMLElement): boolean | null {
  return dataset["done"] === undefined ? null : dataset["done"] === "true";
}

/** The language of a listing; null where it says none, or none that is one word. */
export function codeLanguageFromDom({ dataset }: HTMLElement): string | null {
  const language = dataset["language"] ?? null;
  return isCodeLanguage(language) ? language : null;
}

/** The attributes as the editor itself wrote them to the clipboard; whatever else is there is refused. */
export function attrsFromDom(dom: HTMLElement): Attrs | false {
  try {
    return JSON.parse(dom.dataset["attrs"] ?? "") as Attrs;
  } catch {
    return false;
  }
}

/** A formula as the editor itself wrote it to the clipboard; whatever else is there is refused before it is shown. */
export function formulaFromDom(dom: HTMLElement): Attrs | false {
  const attrs = attrsFromDom(dom);
  if (attrs === false) return false;
  try {
    assertMath(attrs["math"]);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return false;
  }
  return { math: attrs["math"], display: attrs["display"] === true };
}

/** A picture's areas; none where they are not as they should be. */
export function hotspotsFromDom(dom: HTMLElement): Hotspot[] {
  try {
    const hotspots: unknown = JSON.parse(dom.dataset["hotspots"] ?? "[]");
    assertHotspots(hotspots);
    return hotspots;
  } catch {
    return [];
  }
}

/** A link as the editor itself wrote it to the clipboard. */
export function linkFromDom(dom: HTMLElement): Attrs | false {
  try {
    const destination: unknown = JSON.parse(dom.dataset["destination"] ?? "null");
    assertDestination(destination);
    return {
      id: dom.dataset["link"],
      destination,
      description: dom.dataset["description"] || null,
      asText: dom.hasAttribute("data-as-text"),
      look: lookFromDom(dom),
      newWindow: dom.hasAttribute("data-new-window"),
    };
  } catch {
    return false;
  }
}

function lookFromDom({ dataset }: HTMLElement): OwnLook | null {
  if (dataset["look"] === undefined) return null;
  const look: unknown = JSON.parse(dataset["look"]);
  assertOwnLook(look);
  return look;
}

/** A link of any other program: only addresses. */
export function linkFromHref(dom: HTMLElement): Attrs | false {
  try {
    const destination = readHref(dom.getAttribute("href") ?? "", null);
    if (kindOf(destination).schemes.length === 0) return false;
    return { id: newId(), destination, description: dom.getAttribute("title") || null };
  } catch {
    return false;
  }
}
