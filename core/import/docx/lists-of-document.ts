import type { Element, ElementContent } from "hast";
import { element } from "../hast-nodes.ts";
import type { Numbering } from "./numbering.ts";

interface OpenList {
  id: string;
  level: number;
  list: Element;
}

/** Makes lists within each other of paragraphs that say to which list and level of it they belong. */
export class ListsOfDocument {
  private open: OpenList[] = [];
  /** How many items a list has on a level so far, since a list goes on behind what interrupts it. */
  private readonly counts = new Map<string, number>();

  constructor(private readonly numbering: Numbering) {}

  close(): void {
    this.open = [];
  }

  /** Reads something whose lists are its own; those that are open stay so. */
  apart<T>(read: () => T): T {
    const { open } = this;
    this.open = [];
    const made = read();
    this.open = open;
    return made;
  }

  /** Adds to the last item of a level; false where no list of that level is open. */
  goOn(level: number, blocks: readonly ElementContent[]): boolean {
    while ((this.open.at(-1)?.level ?? -1) > level) this.open.pop();
    const last = this.open.at(-1);
    const item = last?.level === level ? last.list.children.at(-1) : undefined;
    if (item?.type !== "element") return false;
    item.children.push(...blocks);
    return true;
  }

  /** Adds an item. @returns the list, where it begins one that lies in no other */
  add(id: string, level: number, item: Element[], paragraph: number): Element | null {
    const { isNumbered, start } = this.numbering.of(id, level);
    const name = isNumbered ? "ol" : "ul";
    while (this.open.length > 0) {
      const last = this.open.at(-1)!;
      const goesOn = last.level === level && last.list.tagName === name && (last.id === id || level > 0);
      if (last.level < level || goesOn) break;
      this.open.pop();
    }
    const number = this.count(id, level, start);
    const entry = element("li", {}, item, paragraph);
    const last = this.open.at(-1);
    if (last?.level === level) {
      last.list.children.push(entry);
      return null;
    }
    const list = element(name, isNumbered ? { start: number } : {}, [entry], paragraph);
    this.open.push({ id, level, list });
    const around = last?.list.children.at(-1);
    if (around?.type !== "element") return list;
    around.children.push(list);
    return null;
  }

  /** The number of the item that is added; levels below it begin anew. */
  private count(id: string, level: number, start: number): number {
    const number = this.counts.get(`${id} ${level}`) ?? start;
    this.counts.set(`${id} ${level}`, number + 1);
    for (const key of this.counts.keys()) {
      const [list, below] = key.split(" ");
      if (list === id && Number(below) > level) this.counts.delete(key);
    }
    return number;
  }
}
