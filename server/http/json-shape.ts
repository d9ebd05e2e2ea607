/** Whether a JSON text is a list; how deep objects and lists of a JSON text lie in each other, and how many entries its longest list has. */
export interface JsonShape {
  isList: boolean;
  levels: number;
  longestList: number;
}

const quote = 0x22;
const backslash = 0x5c;
const comma = 0x2c;
const listBegins = 0x5b;
const listEnds = 0x5d;
const objectBegins = 0x7b;
const objectEnds = 0x7d;

/** Looks over a JSON text without reading it: reading costs many times as much. What is no JSON has some shape too. */
export function shapeOf(json: Uint8Array): JsonShape {
  let isList = false;
  let longestList = 0;
  let levels = 0;
  /** For each open list how many entries it has had; for an object, whose keys are not counted, none. */
  const open: (number | null)[] = [];
  for (let i = 0; i < json.length; i++) {
    switch (json[i]) {
      case quote:
        for (i++; i < json.length && json[i] !== quote; i++) if (json[i] === backslash) i++;
        break;
      case listBegins:
      case objectBegins:
        if (levels === 0) isList = json[i] === listBegins;
        levels = Math.max(levels, open.push(json[i] === listBegins ? 1 : null));
        break;
      case comma: {
        const entries = open.at(-1);
        if (typeof entries === "number") open[open.length - 1] = entries + 1;
        break;
      }
      case listEnds:
      case objectEnds:
        longestList = Math.max(longestList, open.pop() ?? 0);
        break;
    }
  }
  return { isList, levels, longestList };
}
