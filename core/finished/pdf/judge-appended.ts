import {
  PDFArray,
  PDFDict,
  PDFName,
  PDFNull,
  PDFRawStream,
  PDFRef,
  PDFStream,
  type PDFDocument,
  type PDFObject,
} from "@cantoo/pdf-lib";
import type { Fault } from "../../proof/exported-link.ts";
import { FaultList } from "../../proof/fault-list.ts";
import { nameSet } from "../../proof/name-set.ts";
import { openFinished } from "./open-finished.ts";
import { nameIn } from "./open-pdf.ts";

/** What may differ in objects that came, by what they are, and what new ones may have (ISO 32000-1, 12.5, 12.6, 14.7). */
const mayDiffer = {
  page: nameSet("Annots Tabs StructParents"),
  link: nameSet("Rect QuadPoints A Dest Contents Border BS C StructParent"),
  structure: nameSet("K ParentTree ParentTreeNextKey Nums Kids Limits"),
  catalog: nameSet("StructTreeRoot"),
};
/** What may be gone. */
const mayGo = {
  page: new Set<string>(),
  link: nameSet("QuadPoints A Dest PA Contents Border BS C"),
  structure: nameSet("K"),
  catalog: new Set<string>(),
};
const twoWays = "A link leads to two places, as the reader’s program has it.";
const ofNewLink = nameSet("Type Subtype Rect QuadPoints A Dest Contents Border BS C F P StructParent");
const ofAction = nameSet("Type S URI");
const ofElement = nameSet("Type S P Pg K");
const printed = "4";

/**
 * What was appended to a PDF that does more than links ask for: every object that is not as it came, or is new, has to be a
 * link, the list of a page's links, or a part of the structure by which screen readers come to them.
 * @throws FinishedError where one of the files cannot be opened
 */
export async function judgeAppended(came: Uint8Array, saved: Uint8Array, password: string): Promise<Fault[]> {
  const [{ document: before }, { document: after }] = [
    await openFinished(came, password),
    await openFinished(saved, password),
  ];
  return compared(before, after);
}

function compared(came: PDFDocument, saved: PDFDocument): Fault[] {
  const faults = new FaultList();
  const tell = (what: string): void => faults.tell("The file", what);
  for (const key of ["Root", "Info", "Encrypt"] as const)
    if (written(came.context.trailerInfo[key]) !== written(saved.context.trailerInfo[key]))
      tell(`Its “${key}” is another than that which came.`);
  const lists = listsOf(saved);
  for (const [ref, object] of saved.context.enumerateIndirectObjects()) {
    const before = came.context.lookup(ref);
    if (isSame(before, object)) continue;
    const what =
      before instanceof PDFDict && object instanceof PDFDict
        ? changed(before, object)
        : added(ref, before, object);
    if (what !== null) tell(what);
  }
  return faults.all;

  /** Why an object that came may not be as it is now; null where it may. */
  function changed(before: PDFDict, object: PDFDict): string | null {
    const kind = kindOf(before);
    if (kind === null) return `Something else of it was changed: ${named(object)}.`;
    for (const name of namesIn(before, object)) {
      const [was, is] = [before.get(name), object.get(name)];
      if (isSame(was, is)) continue;
      const key = name.decodeText();
      const mayBe = is === undefined ? mayGo[kind].has(key) : mayDiffer[kind].has(key);
      if (!mayBe) return `“${key}” of a ${kind} is not as it was.`;
      const odd = key === "A" && is ? oddAction(is) : null;
      if (odd !== null) return odd;
    }
    return kind === "link" && leadsTwice(object) && !leadsTwice(before) ? twoWays : null;
  }

  function added(ref: PDFRef, before: PDFObject | undefined, object: PDFObject): string | null {
    if (object === PDFNull || (object instanceof PDFArray && lists.has(ref.tag))) return null;
    // The tables of what was appended, and what packs its objects together (7.5.7, 7.5.8).
    if (object instanceof PDFStream && /^(XRef|ObjStm)$/.test(nameIn(object.dict, "Type") ?? "")) return null;
    if (before === undefined && object instanceof PDFDict) {
      if (nameIn(object, "Subtype") === "Link") return oddLink(object);
      const known = nameIn(object, "Type") === "StructElem" ? ofElement : mayDiffer.structure;
      if (keysOf(object).every((key) => known.has(key))) return null;
    }
    return `Something else was put into it: ${named(object)}.`;
  }

  function oddLink(link: PDFDict): string | null {
    const other = keysOf(link).find((key) => !ofNewLink.has(key));
    if (other !== undefined) return `A new link has “${other}”.`;
    if (written(link.get(PDFName.of("F"))) !== printed) return "A new link is not shown as others are.";
    if (leadsTwice(link)) return twoWays;
    const action = link.get(PDFName.of("A"));
    return action ? oddAction(action) : null;
  }

  function oddAction(value: PDFObject): string | null {
    const action = saved.context.lookup(value);
    const other = action instanceof PDFDict ? keysOf(action).find((key) => !ofAction.has(key)) : "A";
    return other === undefined && nameIn(action as PDFDict, "S") === "URI"
      ? null
      : `A press on a link does something else: “${other ?? nameIn(action as PDFDict, "S")}”.`;
  }
}

function leadsTwice(link: PDFDict): boolean {
  return link.has(PDFName.of("A")) && link.has(PDFName.of("Dest"));
}

/** The lists of links of pages, and of kids of the structure, that are objects of their own. */
function listsOf(document: PDFDocument): Set<string> {
  const lists = new Set<string>();
  const take = (dictionary: PDFDict, ...keys: string[]): void => {
    for (const key of keys) {
      const value = dictionary.get(PDFName.of(key));
      if (value instanceof PDFRef) lists.add(value.tag);
    }
  };
  for (const page of document.getPages()) take(page.node, "Annots");
  for (const [, object] of document.context.enumerateIndirectObjects())
    if (object instanceof PDFDict && kindOf(object) === "structure") take(object, "K", "Nums", "Kids");
  return lists;
}

function kindOf(object: PDFDict): keyof typeof mayDiffer | null {
  const type = nameIn(object, "Type");
  if (type === "Page") return "page";
  if (type === "Catalog") return "catalog";
  if (nameIn(object, "Subtype") === "Link") return "link";
  const isTree = ["Nums", "Kids"].some((key) => object.has(PDFName.of(key))) && type === null;
  return isTree || type === "StructElem" || type === "StructTreeRoot" || object.has(PDFName.of("ParentTree"))
    ? "structure"
    : null;
}

function namesIn(...objects: PDFDict[]): Set<PDFName> {
  return new Set(objects.flatMap((object) => object.keys()));
}

function keysOf(object: PDFDict): string[] {
  return object.keys().map((key) => key.decodeText());
}

function isSame(one: PDFObject | undefined, other: PDFObject | undefined): boolean {
  if (one instanceof PDFRawStream && other instanceof PDFRawStream)
    return (
      written(one.dict) === written(other.dict) &&
      one.contents.length === other.contents.length &&
      one.contents.every((byte, i) => byte === other.contents[i])
    );
  return written(one) === written(other);
}

function written(object: PDFObject | undefined): string {
  if (object instanceof PDFStream) return written(object.dict);
  return object?.toString() ?? "";
}

/** What an object is called where it is told: by what it says that it is. */
function named(object: PDFObject): string {
  const dictionary = object instanceof PDFStream ? object.dict : object;
  if (!(dictionary instanceof PDFDict)) return "a value";
  return (
    nameIn(dictionary, "Type") ??
    nameIn(dictionary, "S") ??
    (object instanceof PDFStream ? "a content" : "an entry")
  );
}
