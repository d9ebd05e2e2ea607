import polygonClipping, { type Polygon } from "polygon-clipping";
import { assertDestination } from "../destination/destination.ts";
import type { Destination } from "../destination/kinds/kinds.ts";

export type HotspotShape = "rectangle" | "ellipse" | "polygon";
export type FrameLine = "none" | "solid" | "dashed" | "underlined";

/** A point of a picture as shares of its width and height, from 0 to 1, from its upper left corner. */
export type Point = [x: number, y: number];

/** How a hotspot is marked for readers. `thickness` in CSS px, `colour` as #rrggbb. */
export interface Frame {
  line: FrameLine;
  thickness: number;
  colour: string;
}

/**
 * An area of a picture that is a link. Its points are shares of the picture, so it keeps its place at
 * every size: two opposite corners of a rectangle or of the box around an ellipse, or the corners of a
 * polygon in order.
 */
export interface Hotspot {
  id: string;
  shape: HotspotShape;
  points: Point[];
  destination: Destination;
  /** The text alternative: what the area is, for whoever does not see it. */
  alt: string;
  description: string | null;
  frame: Frame;
}

/** How a new hotspot is framed: not at all. */
export const noFrame: Frame = { line: "none", thickness: 2, colour: "#1d4f8f" };

/** The box around a hotspot, as shares of the picture. */
export function hotspotBox({ points }: Pick<Hotspot, "points">): {
  x: number;
  y: number;
  width: number;
  height: number;
} {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}

/** The hotspot moved by shares of the picture, as far as the picture's edges allow. */
export function moveHotspot<H extends Pick<Hotspot, "points">>(hotspot: H, dx: number, dy: number): H {
  const box = hotspotBox(hotspot);
  const within = (by: number, from: number, size: number): number =>
    Math.min(Math.max(by, -from), 1 - from - size);
  const x = within(dx, box.x, box.width);
  const y = within(dy, box.y, box.height);
  return { ...hotspot, points: hotspot.points.map(([px, py]): Point => [round(px + x), round(py + y)]) };
}

/** The hotspot stretched to another box, given as shares of the picture. */
export function fitHotspot<H extends Pick<Hotspot, "points">>(
  hotspot: H,
  box: { x: number; y: number; width: number; height: number },
): H {
  const old = hotspotBox(hotspot);
  const along = (value: number, from: number, size: number, to: number, length: number): number =>
    clamp(to + (size === 0 ? 0 : ((value - from) / size) * length));
  return {
    ...hotspot,
    points: hotspot.points.map(([x, y]): Point => [
      along(x, old.x, old.width, box.x, box.width),
      along(y, old.y, old.height, box.y, box.height),
    ]),
  };
}

/** How much of a hotspot's area another one covers, from 0 to 1. */
export function coveredShare(
  below: Pick<Hotspot, "shape" | "points">,
  above: Pick<Hotspot, "shape" | "points">,
): number {
  const [a, b] = [outline(below), outline(above)];
  const whole = area([a]);
  return whole === 0 ? 0 : area(polygonClipping.intersection(a, b)) / whole;
}

/** A hotspot's edge as corners; an ellipse as a polygon of 48. */
export function outline(hotspot: Pick<Hotspot, "shape" | "points">): Polygon {
  if (hotspot.shape === "polygon") return [hotspot.points];
  const { x, y, width, height } = hotspotBox(hotspot);
  if (hotspot.shape === "rectangle") {
    return [
      [
        [x, y],
        [x + width, y],
        [x + width, y + height],
        [x, y + height],
      ],
    ];
  }
  const corners = Array.from({ length: 48 }, (_, i): Point => {
    const angle = (i / 48) * 2 * Math.PI;
    return [x + (width / 2) * (1 + Math.cos(angle)), y + (height / 2) * (1 + Math.sin(angle))];
  });
  return [corners];
}

function area(polygons: Polygon[]): number {
  let sum = 0;
  for (const polygon of polygons) {
    polygon.forEach((ring, i) => {
      let twice = 0;
      ring.forEach(([x, y], at) => {
        const [nextX, nextY] = ring[(at + 1) % ring.length]!;
        twice += x * nextY - nextX * y;
      });
      // Rings after the first are holes.
      sum += (i === 0 ? 1 : -1) * Math.abs(twice / 2);
    });
  }
  return sum;
}

/**
 * Says whether a value read from outside is a list of hotspots that may stand in a manuscript.
 * @throws RangeError with what is wrong; DestinationError for a destination that is refused.
 */
export function assertHotspots(value: unknown): asserts value is Hotspot[] {
  if (!Array.isArray(value) || value.length > 500)
    throw new RangeError("A picture has a list of at most 500 hotspots.");
  for (const given of value as Record<string, unknown>[]) {
    const { id, shape, points, alt, description, frame } = given;
    if (typeof id !== "string" || !/^[A-Za-z][\w-]{0,63}$/.test(id))
      throw new RangeError("A hotspot has an id of letters, digits, - and _.");
    const wanted = shape === "polygon" ? [3, 100] : [2, 2];
    const isPoint = (point: unknown): boolean =>
      Array.isArray(point) &&
      point.length === 2 &&
      point.every((n) => typeof n === "number" && n >= 0 && n <= 1);
    if (
      !["rectangle", "ellipse", "polygon"].includes(shape as string) ||
      !Array.isArray(points) ||
      points.length < wanted[0]! ||
      points.length > wanted[1]! ||
      !points.every(isPoint)
    )
      throw new RangeError("A hotspot is a rectangle, an ellipse or a polygon inside its picture.");
    if (typeof alt !== "string" || alt.length > 2000)
      throw new RangeError("A hotspot's text alternative is text.");
    if (description !== null && typeof description !== "string")
      throw new RangeError("A hotspot's description is text or null.");
    const { line, thickness, colour } = (frame ?? {}) as Record<string, unknown>;
    if (
      !["none", "solid", "dashed", "underlined"].includes(line as string) ||
      typeof thickness !== "number" ||
      !(thickness >= 0 && thickness <= 20) ||
      typeof colour !== "string" ||
      !/^#[0-9a-f]{6}$/i.test(colour)
    )
      throw new RangeError("A hotspot's frame has a line, a thickness up to 20 and a colour as #rrggbb.");
    assertDestination(given["destination"]);
  }
}

function clamp(n: number): number {
  return round(Math.min(1, Math.max(0, n)));
}

/** A ten-thousandth of a picture is finer than any screen or printer shows. */
function round(n: number): number {
  return Math.round(Math.min(1, Math.max(0, n)) * 10_000) / 10_000;
}
