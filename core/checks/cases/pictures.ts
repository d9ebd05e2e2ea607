import type { Case, Cases } from "./case.ts";
import { widthOfText } from "./case.ts";

type Points = readonly (readonly [x: number, y: number])[];
/** An area of a picture that is a link. */
export interface Area {
  points: Points;
  shape?: "rectangle" | "ellipse" | "polygon";
  alt?: string;
  frame?: object;
}

/** A picture with areas that are links, as a block. */
export function mapWithAreas(areas: readonly Area[], more: object = {}): object {
  return {
    type: "paragraph",
    content: [
      {
        type: "picture",
        attrs: {
          file: "p",
          alt: "A map",
          hotspots: areas.map(({ points, shape = "rectangle", alt, frame }, i) => ({
            id: `s${i}`,
            shape,
            points,
            destination: { kind: "web", address: "https://tides.example/" },
            description: null,
            alt: alt ?? `Hut ${i}`,
            frame: frame ?? { line: "none", colour: "#1d4f8f", thickness: 1 },
          })),
          ...more,
        },
      },
    ],
  };
}

const drawn = (areas: readonly Area[], more: object = {}): Case => ({
  text: "",
  blocks: [mapWithAreas(areas, more)],
  pictures: { p: { width: 2000, height: 2000 } },
});
const box = (x: number, y: number, width: number, height = width): Area => ({
  points: [
    [x, y],
    [x + width, y + height],
  ],
});
const framed = (line: string, colour: string, thickness = 2): Case =>
  drawn([{ ...box(0, 0, 0.9), frame: { line, colour, thickness } }]);

/** A share of the picture that is so many CSS px where it takes the whole width of the text. */
const px = (length: number): number => length / widthOfText;
const linked = (size: { width: number; height: number }, width: number | null = null): Case => ({
  text: "",
  blocks: [
    {
      type: "paragraph",
      content: [
        {
          type: "picture",
          attrs: { file: "p", alt: "The office", width },
          marks: [
            {
              type: "link",
              attrs: {
                id: "l",
                destination: { kind: "web", address: "https://tides.example/" },
                description: null,
              },
            },
          ],
        },
      ],
    },
  ],
  pictures: { p: size },
});
const plain = (attrs: object): Case => ({
  text: "Words.",
  blocks: [{ type: "paragraph", content: [{ type: "picture", attrs: { file: "p", alt: "", ...attrs } }] }],
});

/** Cases of rules that look at pictures and their areas. */
export const pictureCases: readonly Cases[] = [
  {
    rule: "frame-faint",
    source: "WCAG 2.2 SC 1.4.11; values recomputed with `wcag-contrast`",
    wrong: [
      "#cccccc",
      "#ffffff",
      "#ffff00",
      "#bbbbbb",
      "#00ff00",
      "#ffa500",
      "#aaaaaa",
      "#f0e68c",
      "#959595",
      "#a9a9a9",
    ].map((colour, i) => framed(["solid", "dashed", "underlined"][i % 2]!, colour)),
    right: [
      ...["#767676", "#000000", "#1d4f8f", "#949494", "#9c2a1c", "#ff0000", "#808000", "#0000ff"].map(
        (colour) => framed("solid", colour),
      ),
      framed("none", "#cccccc"),
      framed("none", "#ffffff"),
    ],
  },
  {
    rule: "hotspot-overlap",
    source: "common practice: a clickable area must not be covered",
    wrong: [
      drawn([box(0, 0, 0.2), box(0.1, 0, 0.2)]),
      drawn([box(0, 0, 0.2), box(0, 0, 1)]),
      drawn([box(0.1, 0.1, 0.2), box(0.1, 0.1, 0.2)]),
      drawn([box(0, 0, 0.5), box(0.4, 0.4, 0.5)]),
      drawn([box(0, 0, 0.3), box(0.5, 0.5, 0.2), box(0.2, 0, 0.2)]),
      drawn([box(0, 0, 1), box(0.4, 0.4, 0.2)]),
      drawn([
        { ...box(0, 0, 0.4), shape: "ellipse" },
        { ...box(0.2, 0, 0.4), shape: "ellipse" },
      ]),
      drawn([
        box(0, 0, 0.4),
        {
          shape: "polygon",
          points: [
            [0, 0],
            [0.4, 0],
            [0, 0.4],
          ],
        },
      ]),
      drawn([box(0, 0, 0.2, 0.9), box(0.1, 0.5, 0.4, 0.1)]),
      drawn([box(0, 0, 0.1), box(0.09, 0, 0.1)]),
    ],
    right: [
      drawn([box(0, 0, 0.2)]),
      drawn([box(0, 0, 0.2), box(0.2, 0, 0.2)]),
      drawn([box(0, 0, 0.2), box(0.5, 0.5, 0.2)]),
      drawn([box(0, 0, 0.2), box(0, 0.2, 0.2)]),
      drawn([
        { ...box(0, 0, 0.4), shape: "ellipse" },
        { ...box(0.35, 0.35, 0.3), shape: "ellipse" },
      ]),
      drawn([
        {
          shape: "polygon",
          points: [
            [0, 0],
            [0.4, 0],
            [0, 0.4],
          ],
        },
        {
          shape: "polygon",
          points: [
            [0.4, 0.4],
            [0.4, 0.01],
            [0.01, 0.4],
          ],
        },
      ]),
      drawn([]),
      drawn([box(0, 0, 0.333), box(0.333, 0, 0.333), box(0.666, 0, 0.333)]),
      drawn([box(0, 0, 0.2), box(0.199, 0.199, 0.2)]),
      { text: "", blocks: [mapWithAreas([box(0, 0, 0.5)]), mapWithAreas([box(0, 0, 0.5)], { file: "q" })] },
    ],
  },
  {
    rule: "hotspot-small",
    source: "WCAG 2.2 SC 2.5.8; the sizes are reckoned from the width of the text of the usual page",
    wrong: [
      drawn([box(0.1, 0.1, px(23))]),
      drawn([box(0.1, 0.1, px(100), px(23))]),
      drawn([box(0.1, 0.1, px(23), px(100))]),
      drawn([box(0.1, 0.1, px(40))], { width: 50 }),
      drawn([box(0.1, 0.1, px(100))], { width: 20 }),
      drawn([box(0.1, 0.1, px(1))]),
      drawn([box(0, 0, 0.5), box(0.6, 0.6, px(20))]),
      drawn([{ ...box(0.1, 0.1, px(20)), shape: "ellipse" }]),
      linked({ width: 18, height: 18 }),
      linked({ width: 23, height: 23 }),
      linked({ width: 16, height: 200 }),
      linked({ width: 2000, height: 2000 }, 5),
      linked({ width: 2000, height: 50 }),
    ],
    right: [
      drawn([box(0.1, 0.1, px(24.5))]),
      drawn([box(0.1, 0.1, px(49))], { width: 50 }),
      drawn([box(0, 0, 1)]),
      drawn([box(0, 0, 0.5), box(0.5, 0.5, 0.5)]),
      drawn([]),
      { ...drawn([box(0.1, 0.1, px(10))]), pictures: {} },
      linked({ width: 24, height: 24 }),
      linked({ width: 2000, height: 2000 }),
      linked({ width: 2000, height: 2000 }, 10),
      { text: "[![](p) the office](https://tides.example/)", pictures: { p: { width: 8, height: 8 } } },
      { ...plain({ alt: "A dot" }), pictures: { p: { width: 8, height: 8 } } },
    ],
  },
  {
    rule: "picture-untold",
    source: "failure F65, ACT rule 23a2a8, its examples turned into pictures of a book (from memory)",
    wrong: [
      plain({}),
      plain({ alt: " " }),
      plain({ alt: "\u00a0" }),
      plain({ source: "map.png" }),
      plain({ width: 50 }),
      plain({ file: "q" }),
      "![](p)",
      "Words ![](p) and words.",
      "## A ![](p)",
      "^n: ![](p)\n\nA^n.",
      { text: "", blocks: [mapWithAreas([box(0, 0, 0.5)], { alt: "" })] },
    ],
    right: [
      plain({ alt: "A map of the Sound" }),
      plain({ decorative: true }),
      plain({ alt: "A map", decorative: true }),
      plain({ file: null, source: "map.png" }),
      "![A map](p)",
      "[![](p)](https://tides.example/)",
      "[![](p) the office](https://tides.example/)",
      "Words.",
      { text: "", blocks: [mapWithAreas([box(0, 0, 0.5)])] },
      plain({ alt: "." }),
    ],
  },
];
