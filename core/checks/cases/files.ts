import type { CompanionFile } from "../../manuscript/book.ts";
import type { Case, Cases } from "./case.ts";

const pdf: CompanionFile = { name: "R1 plan.pdf", mediaType: "application/pdf", size: 180_000 };
const file = (name: string, mediaType: string, size = 1000): CompanionFile => ({ name, mediaType, size });
const companion = (about: CompanionFile, words = "the plan", more: Partial<Case> = {}): Case => ({
  text: `See [${words}](companion:f).`,
  files: { f: about },
  ...more,
});
const paths = (...all: string[]): string[] => all.map((path) => `See [the plan](<${path}>).`);
const places = { pages: 8, places: [{ at: "nameddest=huts", name: "huts" }] };
const at = (fragment: string, about: CompanionFile = { ...pdf, places }): Case => ({
  text: `See [the plan](companion:f${fragment}).`,
  files: { f: about },
});
const drive = "https://drive.example/s/1";
const shared = (audience: string, ...who: ("owner" | "anyone" | string)[]): Case[] =>
  who.map((one) => ({
    text: `See [the plan](share:${drive}).`,
    audience,
    shares: {
      [drive]: one === "owner" || one === "anyone" ? { kind: one } : { kind: "group", name: one },
    },
  }));
const comes = (words: string, type: string | null, state: "sound" | "broken" | "moved" = "sound"): Case => ({
  text: `See [${words}](https://tides.example/get).`,
  asked: { "https://tides.example/get": { state, type } },
});
const web = (name: string, words = "the tables"): string => `See [${words}](https://tides.example/${name}).`;

/** Cases of rules that look at files. */
export const fileCases: readonly Cases[] = [
  {
    rule: "file-dead-ends",
    source: "common practice: what goes out with a book is checked like the book",
    wrong: [1, 2, 3, 4, 5, 8, 13, 21, 50, 500].map((count) =>
      companion({
        ...pdf,
        deadEnds: Array.from({ length: count }, (_, i) => ({ to: `https://gone.example/${i}`, page: i + 1 })),
      }),
    ),
    right: [
      companion(pdf),
      companion({ ...pdf, deadEnds: [] }),
      companion(file("a.epub", "application/epub+zip")),
      companion(file("a.png", "image/png")),
      at("#page=2"),
      "See [the plan](companion:gone).",
      { text: "See it.", files: { f: { ...pdf, deadEnds: [{ to: "https://gone.example/", page: 1 }] } } },
      ...paths("plan.pdf", "https://tides.example/plan.pdf"),
      `See [the plan](share:${drive}).`,
    ],
  },
  {
    rule: "file-not-brought",
    source: "common practice: what works on the author's disk does not work on the reader's",
    wrong: paths(
      "plan.pdf",
      "files/plan.pdf",
      "../LICENSE",
      "README.md",
      "a b.docx",
      "docs/",
      "..",
      "./",
      "tables/2026.csv",
      "plan",
    ),
    right: [
      ...paths(
        "https://tides.example/plan.pdf",
        "mailto:orla@tides.example",
        "http://tides.example/",
        "tel:+4420",
      ),
      companion(pdf),
      companion(file("a.png", "image/png")),
      "See [the plan](companion:gone).",
      `See [the plan](share:${drive}).`,
      "See [low water](#title-0).",
      "See the plan.",
      ...paths("www.tides.example", "tides.example/tables"),
    ],
  },
  {
    rule: "file-gone",
    source: "EPUB 3.3: every linked resource is in the container",
    wrong: ["gone", "g", "f2", "x", "a-b", "F", "plan", "one", "two", "ff"].map((id): Case => ({
      text: `See [the plan](companion:${id}).`,
      files: { f: pdf },
    })),
    right: [
      companion(pdf),
      companion(pdf, "a"),
      companion(file("b.txt", "text/plain")),
      at("#page=2"),
      at("#page=99"),
      ...paths("gone.pdf", "https://tides.example/gone.pdf"),
      `See [the plan](share:${drive}).`,
      "See [low water](#gone).",
      "Nothing is linked.",
    ],
  },
  {
    rule: "file-place-gone",
    source: "RFC 8118 (from memory)",
    wrong: [
      "#page=9",
      "#page=0",
      "#page=10",
      "#page=100",
      "#nameddest=sheds",
      "#nameddest=Huts",
      "#nameddest=hut",
      "#page=9999",
      "#nameddest=huts2",
      "#page=-1",
    ].map((fragment) => at(fragment)),
    right: [
      at("#page=8"),
      at("#page=1"),
      at("#nameddest=huts"),
      at(""),
      at("#page=9", pdf),
      at("#nameddest=sheds", pdf),
      at("#page=4"),
      at("#page=2"),
      { text: "See [the plan](companion:gone#page=2)." },
      "See [the plan](https://tides.example/plan.pdf#page=99).",
    ],
  },
  {
    rule: "file-untold",
    source: "techniques G91 and H33 (from memory); endings: common practice",
    wrong: [
      web("tables.pdf"),
      web("tables.PDF"),
      web("tables.tiff"),
      web("tables.docx"),
      web("tables.zip"),
      web("tables.epub"),
      web("tables.tar.gz"),
      web("tables.gpx"),
      web("tables.xlsx?x=1"),
      web("tables.mp3", "the song of the plover"),
      companion(pdf),
      companion(file("route.gpx", "application/gpx+xml")),
      web("pdflatex.pdf", "pdflatex for all"),
    ],
    right: [
      web(""),
      web("pdf"),
      web("tables.html"),
      web("tables.pdf", "the tables (PDF, 2 MB)"),
      web("tables.pdf", "PDFs of the tables"),
      web("tables.xlsx", "the spreadsheet of tides"),
      web("tables.zip", "the packed tables"),
      web("a.mp3", "a recording of the plover"),
      web("plan.png"),
      web("data.json"),
      web("tables.aspx"),
      companion(pdf, "the plan (PDF)"),
      { text: 'See [the plan](companion:f "A PDF of two pages").', files: { f: pdf } },
      "See [the plan](companion:gone).",
      web("v1.0"),
    ],
  },
  {
    rule: "file-large",
    source: "common practice: ten million bytes",
    wrong: [1, 10, 100, 1000, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9].map((more) =>
      companion(file("film.mp4", "video/mp4", 10_000_000 + more)),
    ),
    right: [0, 1, 10, 100, 1000, 1e4, 1e5, 1e6, 5e6, 9_999_999].map((less) =>
      companion(file("film.mp4", "video/mp4", 10_000_000 - less)),
    ),
  },
  {
    rule: "file-foreign",
    source: "EPUB 3.3, section 3.2, core media types (from memory)",
    wrong: [
      "application/pdf",
      "application/zip",
      "text/csv",
      "text/plain",
      "text/html",
      "image/tiff",
      "image/bmp",
      "video/mp4",
      "application/epub+zip",
      "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
      "application/gpx+xml",
    ].map((type) => companion(file("plan", type))),
    right: [
      "image/png",
      "image/jpeg",
      "image/gif",
      "image/svg+xml",
      "image/webp",
      "audio/mpeg",
      "audio/mp4",
      "audio/ogg",
      "application/xhtml+xml",
      "text/css",
    ].map((type) => companion(file("plan", type))),
  },
  {
    rule: "share-too-narrow",
    source: "common practice: who may open a shared file is settled before the book goes out",
    wrong: [
      ...shared("anyone", "owner", "Wardens", "Ferrymen", "Pilots", "Staff"),
      ...shared("Wardens", "owner", "Ferrymen", "wardens", "Pilots"),
      ...shared("Ferrymen", "owner", "Wardens"),
    ],
    right: [
      ...shared("anyone", "anyone"),
      ...shared("Wardens", "anyone", "Wardens"),
      ...shared("Ferrymen", "anyone", "Ferrymen"),
      ...shared("Pilots", "anyone", "Pilots"),
      `See [the plan](share:${drive}).`,
      companion(pdf),
      { text: `See [the plan](${drive}).`, shares: { [drive]: { kind: "anyone" } } },
      "See [the office](https://tides.example/).",
    ],
  },
  {
    rule: "type-untrue",
    source: "technique H33 (from memory); media types of IANA's registry (from memory)",
    wrong: [
      comes("the tables (PDF)", "text/html"),
      comes("the tables (PDF, 2 MB)", "text/html"),
      comes("the tables \\[PDF\\]", "application/zip"),
      comes("the tables (pdf)", "image/png"),
      comes("the book (EPUB)", "application/pdf"),
      comes("the data (CSV)", "application/pdf"),
      comes("the data (ZIP)", "text/html"),
      comes("the song (MP3)", "text/html"),
      comes("the letter (DOCX)", "application/pdf", "moved"),
      companion(
        file("plan.docx", "application/vnd.openxmlformats-officedocument.wordprocessingml.document"),
        "the plan (PDF)",
      ),
      comes("the tables (as PDF)", "application/xhtml+xml"),
    ],
    right: [
      comes("the tables (PDF)", "application/pdf"),
      comes("the tables (PDF)", "application/octet-stream"),
      comes("the tables (PDF)", null),
      comes("the tables (PDF)", "text/html", "broken"),
      comes("the PDF tables", "text/html"),
      comes("about PDF", "text/html"),
      comes("the data (CSV)", "text/csv"),
      comes("the data (CSV)", "text/plain"),
      comes("the book (EPUB)", "application/epub+zip"),
      comes("the film (MP4)", "video/mp4"),
      comes("the office (Hesterley)", "text/html"),
      companion(pdf, "the plan (PDF)"),
      "See [the tables (PDF)](https://tides.example/get).",
    ],
  },
];
