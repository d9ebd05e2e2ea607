import type { PdfObjects } from "../../../pdf/pdf-objects.ts";
import { nameOf, PdfRef, PdfString, type PdfDict, type PdfValue } from "../../../pdf/pdf-values.ts";
import type { Fault } from "../../../proof/exported-link.ts";
import { FaultList } from "../../../proof/fault-list.ts";
import { nameSet } from "../../../proof/name-set.ts";

/** What a PDF's own objects tell of its links beside where they lead and on what they stand. */
export interface PdfAudit {
  faults: Fault[];
  /** Why a press does not reach an annotation, by the number of its object. */
  unreachable: ReadonlyMap<number, string>;
}

// ISO 32000-1, table 165.
const flags: [bit: number, why: string][] = [
  [1, "It is invisible."],
  [2, "It is hidden."],
  [32, "It is not shown on a screen."],
];
const actions = new Set(["URI", "GoTo"]);
/** What says nothing of how a page is shown, or of what a press does, by what it stands in (tables 28, 30, 150, 164, 173, 206). */
const plain = {
  file: nameSet(
    "Type Version Extensions Pages PageLabels Names Dests Outlines PageMode PageLayout Metadata StructTreeRoot MarkInfo Lang",
    "OutputIntents ViewerPreferences OpenAction AA OCProperties",
  ),
  viewer: nameSet("DisplayDocTitle Direction"),
  names: nameSet("Dests JavaScript"),
  tree: nameSet("Names Limits"),
  branch: nameSet("Type Parent Kids Count Resources MediaBox"),
  page: nameSet("Type Parent Resources MediaBox Contents StructParents Tabs Annots Group AA LastModified"),
  link: nameSet("Type Subtype Rect QuadPoints Border BS C F H A Dest Contents StructParent P NM M OC AA"),
  action: nameSet("Type S URI D Next"),
};
/** Flags of an annotation that change nothing of where it is, or whether it is pressed: printed, read-only, locked. */
const plainFlags = 4 | 64 | 128;
/** In points; a wider line would lie over other words. */
const widestBorder = 8;
/** What a reader sees first beside the pages. */
const plainModes = nameSet("UseNone UseOutlines");
/** What is laid out by rows and columns: a cell over several rows may be drawn after those beside it (table 337). */
const grids = new Set(["Table", "THead", "TBody", "TFoot", "TR"]);
/** A rectangle may be written less exactly than the lines within it. */
const tolerance = 1;

/**
 * Looks through the objects of a PDF for what reading its text and links does not show: actions besides those of links,
 * things over links, flags, layers, what is listed twice, and a structure that says something else (ISO 32000-1, 12.5,
 * 12.6, 14.7; ISO 14289-1, 7.18).
 * @throws PdfError where the objects cannot be read
 */
export function auditPdf(objects: PdfObjects): PdfAudit {
  return new Audit(objects).done();
}

class Audit {
  private readonly faults = new FaultList();
  private readonly unreachable = new Map<number, string>();
  /** The annotations that elements of the structure tree name. */
  private readonly inStructure = new Set<number>();
  /** How many pages stand before a page, by the number of its object. */
  private readonly pageOrder = new Map<number, number>();

  constructor(private readonly objects: PdfObjects) {}

  done(): PdfAudit {
    const catalog = this.objects.dictionary(this.objects.trailer.get("Root"));
    if (catalog.has("OpenAction")) this.tell("The file", "Something happens when it is opened.");
    if (catalog.has("AA")) this.tell("The file", "Something happens by itself.");
    this.judgeKeys(catalog, plain.file, "The file");
    this.judgeKeys(this.objects.read(catalog.get("ViewerPreferences")), plain.viewer, "The file");
    const mode = nameOf(this.objects.read(catalog.get("PageMode"))) || "UseNone";
    if (!plainModes.has(mode)) this.tell("The file", `It opens by “${mode}”.`);
    if (catalog.has("StructTreeRoot") && !this.isMarked(catalog))
      this.tell("The file", "A screen reader is not told that it has a structure.");
    this.judgeNames(catalog);
    const off = this.layersOff(catalog);
    const pages = this.pages(catalog.get("Pages"));
    pages.forEach(({ number }, i) => {
      if (this.pageOrder.has(number)) this.tell(`page ${i + 1}`, "It comes twice.");
      this.pageOrder.set(number, i);
    });
    const structure = this.objects.read(catalog.get("StructTreeRoot"));
    if (structure instanceof Map) this.judgeElements(structure, null);
    pages.forEach(({ dictionary }, i) => this.judgePage(dictionary, `page ${i + 1}`, off));
    return { faults: this.faults.all, unreachable: this.unreachable };
  }

  private judgePage(page: PdfDict, where: string, off: ReadonlySet<number>): void {
    if (page.has("AA")) this.tell(where, "Something happens by itself on it.");
    this.judgeKeys(page, plain.page, where);
    const refs = (this.objects.read(page.get("Annots")) ?? []) as PdfValue[];
    const seen = new Set<number>();
    for (const value of refs) {
      const annotation = this.objects.dictionary(value);
      const number = value instanceof PdfRef ? value.number : -1;
      if (seen.has(number)) this.tell(where, "A link is listed twice.");
      seen.add(number);
      const kind = nameOf(annotation.get("Subtype"));
      if (kind !== "Link") this.tell(where, `Something that is no link takes presses: “${kind}”.`);
      else this.judgeLink(annotation, number, where, off);
    }
  }

  private judgeLink(link: PdfDict, number: number, where: string, off: ReadonlySet<number>): void {
    const bits = (this.objects.read(link.get("F")) ?? 0) as number;
    const flag = flags.find(([bit]) => (bits & bit) !== 0);
    const layer = link.get("OC");
    const why =
      flag?.[1] ??
      (layer instanceof PdfRef && off.has(layer.number) ? "Its layer is switched off." : null) ??
      (typeof this.objects.read(link.get("StructParent")) === "number"
        ? null
        : "A screen reader does not know to what it belongs.") ??
      (this.inStructure.has(number) ? null : "A screen reader does not come to it.") ??
      this.whyOutside(link);
    if (why !== null) this.unreachable.set(number, why);
    // What is not printed is shown by some readers' programs, and not by others.
    if ((bits & 4) === 0) this.tell(where, "A link is there on the screen alone.");
    else if ((bits & ~plainFlags) !== 0 && !flag) this.tell(where, "A link is not shown as others are.");
    if (link.has("AA")) this.tell(where, "Something happens when a link is pointed at.");
    this.judgeKeys(link, plain.link, where);
    const [, , width = 1] = this.objects.several(link.get("Border")).map(Number);
    if (width > widestBorder) this.tell(where, "The line around a link lies over other words.");
    this.judgeView(link.get("Dest"), where);
    const action = this.objects.read(link.get("A"));
    if (!(action instanceof Map)) return;
    if (link.has("Dest")) this.tell(where, "A link leads to two places, as the reader’s program has it.");
    this.judgeKeys(action, plain.action, where);
    const does = nameOf(action.get("S"));
    if (!actions.has(does)) this.tell(where, `A press on a link does something else: “${does}”.`);
    if (action.has("Next")) this.tell(where, "A press on a link does more than it says.");
  }

  /** The lines of an annotation lie in its rectangle, else readers' programs may not heed them (12.5.6.5). */
  private whyOutside(link: PdfDict): string | null {
    const rect = this.objects.read(link.get("Rect")) as number[];
    const lines = this.objects.read(link.get("QuadPoints"));
    if (!Array.isArray(lines)) return null;
    const isOutside = (lines as number[]).some((value, i) =>
      i % 2 === 0
        ? value < rect[0]! - tolerance || value > rect[2]! + tolerance
        : value < rect[1]! - tolerance || value > rect[3]! + tolerance,
    );
    return isOutside ? "Its lines lie outside of its rectangle." : null;
  }

  private judgeNames(catalog: PdfDict): void {
    const names = this.objects.read(catalog.get("Names"));
    if (!(names instanceof Map)) return;
    if (names.has("JavaScript")) this.tell("The file", "A script runs in it.");
    this.judgeKeys(names, plain.names, "The file");
    const tree = this.objects.read(names.get("Dests"));
    this.judgeKeys(tree, plain.tree, "The file");
    const list = tree instanceof Map ? this.objects.read(tree.get("Names")) : null;
    if (!Array.isArray(list)) return;
    const keys = list.filter((_, i) => i % 2 === 0).map((key) => (key instanceof PdfString ? key.bytes : ""));
    for (const view of list.filter((_, i) => i % 2 === 1)) this.judgeView(view, "The file");
    keys.forEach((key, i) => {
      if (i === 0 || keys[i - 1]! < key) return;
      // Readers' programs look a name up by halving the list (7.9.6).
      if (keys[i - 1] === key) this.tell("The file", `Two places have the name “${key}”.`);
      else this.tell("The file", `The names of places are not in their order at “${key}”.`);
    });
  }

  /** Where a place is shown, and how large: as the page is shown already (12.3.2.2). */
  private judgeView(value: PdfValue | undefined, where: string): void {
    const view = this.objects.read(value);
    if (!Array.isArray(view)) return;
    const zoom = this.objects.read(view[4]) ?? 0;
    if (nameOf(view[1]) !== "XYZ" || zoom !== 0)
      this.tell(where, "A place is shown in another size than pages are.");
  }

  private isMarked(catalog: PdfDict): boolean {
    const info = this.objects.read(catalog.get("MarkInfo"));
    return info instanceof Map && this.objects.read(info.get("Marked")) === true;
  }

  /** What is not known to say nothing of how pages are shown, and what a press does, is told. */
  private judgeKeys(value: PdfValue, known: ReadonlySet<string>, where: string): void {
    if (!(value instanceof Map)) return;
    for (const key of value.keys())
      if (!known.has(key)) this.tell(where, `“${key}” may change what is seen, or what a press does.`);
  }

  private layersOff(catalog: PdfDict): Set<number> {
    const properties = this.objects.read(catalog.get("OCProperties"));
    const standard = properties instanceof Map ? this.objects.read(properties.get("D")) : null;
    const off = standard instanceof Map ? this.objects.read(standard.get("OFF")) : null;
    return new Set(
      Array.isArray(off) ? off.flatMap((one) => (one instanceof PdfRef ? [one.number] : [])) : [],
    );
  }

  /** @param page the number of the object of the page on which the elements above stand */
  private judgeElements(element: PdfDict, page: number | null): void {
    const own = element.get("Pg");
    const here = own instanceof PdfRef ? own.number : page;
    const role = nameOf(element.get("S"));
    if (role === "Link" && (element.has("ActualText") || element.has("Alt")))
      this.tell("The structure", "A screen reader says other words of a link than those that are seen.");
    const kids = this.objects.several(element.get("K"));
    if (!grids.has(role)) this.judgeOrder(kids, here);
    for (const kid of kids) {
      const object = this.objects.read(kid);
      if (!(object instanceof Map)) continue;
      const annotation = object.get("Obj");
      if (annotation instanceof PdfRef && role === "Link") this.inStructure.add(annotation.number);
      if (object.has("S")) this.judgeElements(object, here);
    }
  }

  /** What a page draws is numbered in its order; a paragraph’s own pieces are read in that order. */
  private judgeOrder(kids: PdfValue[], page: number | null): void {
    let last = { content: -1, page: -1 };
    for (const kid of kids) {
      const first = this.firstContent(kid, page);
      if (!first || first.isApart) continue;
      const at = { content: first.content, page: this.pageOrder.get(first.page ?? -1) ?? -1 };
      if (at.page < last.page || (at.page === last.page && at.content < last.content))
        this.tell("The structure", "A screen reader reads a paragraph in another order than it is shown.");
      last = at;
    }
  }

  private firstContent(
    kid: PdfValue,
    page: number | null,
  ): { content: number; page: number | null; isApart: boolean } | null {
    if (typeof kid === "number") return { content: kid, page, isApart: false };
    const object = this.objects.read(kid);
    if (!(object instanceof Map)) return null;
    const own = object.get("Pg");
    const here = own instanceof PdfRef ? own.number : page;
    const content = this.objects.read(object.get("MCID"));
    if (typeof content === "number") return { content, page: here, isApart: false };
    if (!object.has("S")) return null;
    for (const inner of this.objects.several(object.get("K"))) {
      const first = this.firstContent(inner, here);
      // A note stands at the foot of the page, and is read where its mark is.
      if (first) return { ...first, isApart: nameOf(object.get("S")) === "Note" };
    }
    return null;
  }

  private pages(value: PdfValue | undefined): { dictionary: PdfDict; number: number }[] {
    const dictionary = this.objects.dictionary(value);
    const kids = this.objects.read(dictionary.get("Kids"));
    if (Array.isArray(kids)) {
      this.judgeKeys(dictionary, plain.branch, "The file");
      return kids.flatMap((kid) => this.pages(kid));
    }
    return [{ dictionary, number: value instanceof PdfRef ? value.number : -1 }];
  }

  private tell(where: string, what: string): void {
    this.faults.tell(where, what);
  }
}
