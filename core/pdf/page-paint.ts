import { multiplied, unchanged, type Matrix } from "./matrix.ts";
import type { PdfObjects } from "./pdf-objects.ts";
import { nameOf, type PdfDict, type PdfValue } from "./pdf-values.ts";

/** Left, lower, right and upper edge, in points. */
type Box = readonly [left: number, low: number, right: number, high: number];

/** How a page is painted, as far as letters of it may not be seen for it. */
export interface PaintedPage {
  /** Why some may not be seen. */
  wrong: readonly string[];
  /** What is laid over all that was painted before, in that order. */
  covers: readonly Cover[];
  /** When letters of each marked content were shown last, by its id. */
  shown: ReadonlyMap<string, number>;
}

/** A shape that is filled, or a picture. */
export interface Cover {
  box: Box;
  /** How many times letters had been shown before. */
  after: number;
  isPicture: boolean;
}

interface State {
  matrix: Matrix;
  /** What is left of the page to paint on; null where that is all of it. */
  clip: Box | null;
  /** Whether what is filled has the colour of paper. */
  isPaper: boolean;
  isFaint: boolean;
  /** How letters are drawn: filled, outlined, not at all (9.3.6). */
  mode: number;
  size: number;
}

/** Operators that neither paint nor change how letters are seen (ISO 32000-1, annex A). */
const others = new Set("J j M d i ri w CS SC SCN G RG K ET Tc Tw Tz TL Ts T* h MP DP".split(" "));
/** What of a graphics state does not change how letters are seen (table 58). */
const plainStates = new Set("Type LW LC LJ ML D RI OP op OPM SA AIS TK FL SM".split(" "));
const leastSeen = 0.3;
/** A colour of less ink than this is that of paper. */
const leastInk = 0.04;
/** In points. */
const leastLetter = 2;

/** Goes along with the operators of a page’s content, and watches for what hides letters (ISO 32000-1, 8.4 to 8.10, 9.3). */
export class PagePaint {
  private readonly wrong = new Set<string>();
  private readonly covers: Cover[] = [];
  private readonly shown = new Map<string, number>();
  private readonly kept: State[] = [];
  /** The ids of the marked contents that are open. */
  private readonly open: (string | null)[] = [];
  private state: State = {
    matrix: unchanged,
    clip: null,
    isPaper: false,
    isFaint: false,
    mode: 0,
    size: 0,
  };
  private text = unchanged;
  private times = 0;
  private path: [left: number, low: number, right: number, high: number] | null = null;
  private isClip = false;

  constructor(
    private readonly objects: PdfObjects,
    private readonly resources: PdfDict,
  ) {}

  get page(): PaintedPage {
    return { wrong: [...this.wrong], covers: this.covers, shown: this.shown };
  }

  perform(operator: string, operands: readonly PdfValue[]): void {
    const { state } = this;
    switch (operator) {
      case "q":
        this.kept.push({ ...state });
        return;
      case "Q":
        this.state = this.kept.pop() ?? state;
        return;
      case "cm":
        state.matrix = multiplied(state.matrix, operands as unknown as Matrix);
        return;
      case "gs":
        return this.takeState(operands[0]);
      case "Tr":
        state.mode = Number(operands[0]);
        return;
      case "Tf":
        state.size = Number(operands[1]);
        return;
      case "cs":
        state.isPaper = false;
        return;
      case "sc":
      case "scn":
      case "g":
      case "rg":
      case "k":
        state.isPaper = isPaper(operands);
        return;
      case "BMC":
      case "BDC":
        return this.begin(nameOf(operands[0]), operands[1]);
      case "EMC":
        this.open.pop();
        return;
      case "BT":
        this.text = unchanged;
        return;
      case "Tm":
        this.text = operands as unknown as Matrix;
        return;
      case "Td":
      case "TD":
        this.text = multiplied(this.text, [1, 0, 0, 1, Number(operands[0]), Number(operands[1])]);
        return;
      case "Tj":
      case "TJ":
      case "'":
      case '"':
        return this.show();
      case "m":
      case "l":
      case "c":
      case "v":
      case "y":
        for (let i = 0; i + 1 < operands.length; i += 2)
          this.reach(Number(operands[i]), Number(operands[i + 1]));
        return;
      case "re": {
        const [x = 0, y = 0, width = 0, height = 0] = operands.map(Number);
        this.reach(x, y);
        this.reach(x + width, y + height);
        this.reach(x, y + height);
        this.reach(x + width, y);
        return;
      }
      case "W":
      case "W*":
        this.isClip = true;
        return;
      case "n":
      case "S":
      case "s":
        return this.endPath(false);
      case "f":
      case "F":
      case "f*":
      case "B":
      case "B*":
      case "b":
      case "b*":
        return this.endPath(true);
      case "Do":
        return this.draw(operands[0]);
      default:
        if (!others.has(operator))
          this.wrong.add(`It is painted with “${operator}”, which may hide its letters.`);
    }
  }

  private show(): void {
    const { state, wrong } = this;
    this.times++;
    const id = this.open.findLast((one) => one !== null);
    if (id) this.shown.set(id, this.times);
    // Written out, since a page has thousands: how high letters are set, and where.
    const { matrix, size, clip } = state;
    const [, , across, up, left, low] = this.text;
    const x = matrix[0] * left + matrix[2] * low + matrix[4];
    const y = matrix[1] * left + matrix[3] * low + matrix[5];
    const c = matrix[0] * across + matrix[2] * up;
    const d = matrix[1] * across + matrix[3] * up;
    if (state.mode !== 0) wrong.add("Letters on it are not drawn as others are.");
    if (state.isFaint) wrong.add("Letters on it are hardly seen.");
    if (Math.sqrt(c * c + d * d) * size < leastLetter) wrong.add("Letters on it have no size.");
    if (clip && !isIn(clip, x, y)) wrong.add("Letters on it are cut away.");
    if (state.isPaper && !this.covers.some(({ box }) => isIn(box, x, y)))
      wrong.add("Letters on it have the colour of the page.");
  }

  private takeState(name: PdfValue | undefined): void {
    for (const [key, value] of this.resource("ExtGState", name)) {
      const says = this.objects.read(value);
      if (key === "ca" || key === "CA") this.state.isFaint = Number(says) < leastSeen;
      else if (
        key === "BM"
          ? nameOf(says) !== "Normal"
          : key === "SMask"
            ? nameOf(says) !== "None"
            : !plainStates.has(key)
      )
        this.wrong.add(`It is painted with “${key}”, which may hide its letters.`);
    }
  }

  private begin(tag: string, given: PdfValue | undefined): void {
    if (tag === "OC") this.wrong.add("It has a layer that may not be shown.");
    const id = given instanceof Map ? this.objects.read(given.get("MCID")) : null;
    this.open.push(typeof id === "number" ? `mc${id}` : null);
  }

  /** A form covers what is within its box (8.10.2), a picture the square of its own coordinates (8.9.5). */
  private draw(name: PdfValue | undefined): void {
    const drawn = this.resource("XObject", name);
    const numbers = (key: string, usual: readonly number[]): number[] => {
      const found = this.objects.several(drawn.get(key)).map(Number);
      return found.length === usual.length ? found : [...usual];
    };
    const isForm = nameOf(drawn.get("Subtype")) === "Form";
    const by = isForm ? (numbers("Matrix", unchanged) as unknown as Matrix) : unchanged;
    const [left = 0, low = 0, right = 1, high = 1] = isForm ? numbers("BBox", [0, 0, 1, 1]) : [];
    const { matrix } = this.state;
    this.state.matrix = multiplied(matrix, by);
    for (const x of [left, right]) for (const y of [low, high]) this.reach(x, y);
    this.endPath(true, true);
    this.state.matrix = matrix;
  }

  /** A corner of the path that is being made. */
  private reach(x: number, y: number): void {
    const [a, b, c, d, e, f] = this.state.matrix;
    const [across, up] = [a * x + c * y + e, b * x + d * y + f];
    const path = (this.path ??= [across, up, across, up]);
    if (across < path[0]) path[0] = across;
    if (up < path[1]) path[1] = up;
    if (across > path[2]) path[2] = across;
    if (up > path[3]) path[3] = up;
  }

  private endPath(isFilled: boolean, isPicture = false): void {
    const { path, state } = this;
    this.path = null;
    if (path && isFilled)
      this.covers.push({ box: state.clip ? common(path, state.clip) : path, after: this.times, isPicture });
    if (this.isClip) state.clip = common(path ?? [0, 0, 0, 0], state.clip ?? path ?? [0, 0, 0, 0]);
    this.isClip = false;
  }

  private resource(kind: string, name: PdfValue | undefined): PdfDict {
    const all = this.objects.read(this.resources.get(kind));
    const found = all instanceof Map ? this.objects.read(all.get(nameOf(name))) : null;
    if (found instanceof Map) return found;
    this.wrong.add("What it is painted with is not there.");
    return new Map();
  }
}

function isIn([left, low, right, high]: Box, x: number, y: number): boolean {
  return x >= left - 1 && x <= right + 1 && y >= low - 1 && y <= high + 1;
}

function common(one: Box, other: Box): Box {
  return [
    Math.max(one[0], other[0]),
    Math.max(one[1], other[1]),
    Math.min(one[2], other[2]),
    Math.min(one[3], other[3]),
  ];
}

/** Whether a colour, as shares of light or of inks (8.6.4), is that of paper; a pattern may be. */
function isPaper(operands: readonly PdfValue[]): boolean {
  const shares = operands.map(Number);
  if (shares.some(Number.isNaN)) return true;
  const light = shares.length === 4 ? shares.map((ink) => 1 - ink) : shares;
  return light.every((share) => share > 1 - leastInk);
}
