import type { Element } from "hast";
import type { HotspotShape, Point } from "../manuscript/hotspot.ts";

/** An area of a picture that is a link, as a reader of manuscripts found it; in the tree as JSON, its picture's `dataAreas`. */
export interface FoundArea {
  shape: HotspotShape;
  points: Point[];
  /** Whether its points are shares of the picture's width and height, or its pixels. */
  unit: "share" | "pixel";
  href: string;
  alt: string;
  title: string | null;
  /** Its frame, as exports say it; left out where none is told. */
  frame?: string;
}

type Box = { x: number; y: number; width: number; height: number };

/** What links an area, apart from its shape. */
type AreaLink = Pick<FoundArea, "href" | "alt" | "title" | "frame">;

/** The areas of an image map (HTML, 4.8.14), in pixels of the picture as it is shown. */
export function areaOfMap(area: Element): FoundArea | null {
  const { href, alt, title, shape, coords } = area.properties;
  if (typeof href !== "string") return null;
  const numbers = (Array.isArray(coords) ? coords.map(String) : String(coords ?? "").split(/[\s,;]+/))
    .flatMap((one) => String(one).split(/[\s,;]+/))
    .filter((one) => one !== "")
    .map(Number);
  const link: AreaLink = {
    href,
    alt: String(alt || title || href),
    title: alt && title ? String(title) : null,
  };
  const kind = String(shape ?? "rect").toLowerCase();
  const [a = NaN, b = NaN, c = NaN, d = NaN] = numbers;
  const whole: Point[] = [
    [0, 0],
    [1, 1],
  ];
  const made = (of: HotspotShape, points: Point[]): FoundArea => ({
    ...link,
    shape: of,
    points,
    unit: "pixel",
  });
  const isWhole = kind === "default" || numbers.length < 3 || numbers.some(Number.isNaN);
  if (isWhole) return { ...link, shape: "rectangle", points: whole, unit: "share" };
  if (kind.startsWith("circ"))
    return made("ellipse", [
      [a - c, b - c],
      [a + c, b + c],
    ]);
  if (kind.startsWith("poly")) return made("polygon", pairs(numbers));
  return made("rectangle", [
    [a, b],
    [c, d],
  ]);
}

function pairs(numbers: readonly number[]): Point[] {
  return Array.from({ length: Math.floor(numbers.length / 2) }, (_, i): Point => [
    numbers[2 * i]!,
    numbers[2 * i + 1]!,
  ]);
}

/** A shape of SVG (SVG 1.1, 9), or of OpenDocument, in whose units the picture has a box; null for what is none. */
export function areaOfShape(
  name: string,
  attribute: (name: string) => string | undefined,
  picture: Box,
  link: AreaLink,
): FoundArea | null {
  const number = (key: string): number => lengthOf(attribute(key));
  const [x, y] = [number("x") || 0, number("y") || 0];
  const box = (from: Point, to: Point, shape: HotspotShape): FoundArea | null => made(shape, [from, to]);
  const made = (shape: HotspotShape, points: Point[]): FoundArea | null => {
    const shares = points.map(([px, py]): Point => [
      (px - picture.x) / picture.width,
      (py - picture.y) / picture.height,
    ]);
    return shares.flat().every(Number.isFinite) ? { ...link, shape, points: shares, unit: "share" } : null;
  };
  switch (name) {
    case "rect":
    case "area-rectangle":
      return box([x, y], [x + number("width"), y + number("height")], "rectangle");
    case "circle":
    case "ellipse":
    case "area-circle": {
      const [rx, ry] = [number("rx"), number("ry")].map((one) =>
        Number.isNaN(one) ? number("r") : one,
      ) as Point;
      const [cx, cy] = [number("cx") || 0, number("cy") || 0];
      return box([cx - rx, cy - ry], [cx + rx, cy + ry], "ellipse");
    }
    case "polygon":
      return made("polygon", pointsOf(attribute("points")));
    case "area-polygon": {
      const [left = 0, top = 0, width = 1, height = 1] = (attribute("viewBox") ?? "")
        .split(/[\s,]+/)
        .map(Number);
      const across = number("width") / width;
      const down = number("height") / height;
      return made(
        "polygon",
        pointsOf(attribute("points")).map(([px, py]): Point => [
          x + (px - left) * across,
          y + (py - top) * down,
        ]),
      );
    }
    default:
      return null;
  }
}

function pointsOf(text: string | undefined): Point[] {
  return pairs(
    (text ?? "")
      .split(/[\s,]+/)
      .filter((one) => one !== "")
      .map(Number),
  );
}

const perInch: Readonly<Record<string, number>> = { in: 1, cm: 2.54, mm: 25.4, pt: 72, pc: 6 };

/** A length in inches where it has a unit of paper, else as its number says. */
export function lengthOf(text: string | undefined): number {
  const [, number = "", unit = ""] = /^\s*(-?[\d.]+)\s*([a-z]*)/i.exec(text ?? "") ?? [];
  return number === "" ? NaN : Number(number) / (perInch[unit.toLowerCase()] ?? 1);
}

/** Whether an area covers all of its picture, so that the picture itself is the link. */
export function isWholePicture({
  shape,
  points,
  unit,
}: Pick<FoundArea, "shape" | "points" | "unit">): boolean {
  if (shape !== "rectangle" || unit !== "share") return false;
  const [[left, top], [right, bottom]] = points as [Point, Point];
  return (
    Math.min(left, right) < 0.005 &&
    Math.min(top, bottom) < 0.005 &&
    Math.max(left, right) > 0.995 &&
    Math.max(top, bottom) > 0.995
  );
}
