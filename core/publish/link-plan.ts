import { indexOf, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { numberNotes } from "../manuscript/notes.ts";
import { referenceWords } from "../manuscript/references.ts";
import { referenceAttrs, signpostAttrs } from "../manuscript/schema.ts";
import { returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import type { ExportFormat, ExportOptions } from "./export-options.ts";
import { travel } from "./travel.ts";
import { travellingFiles } from "./travelling-files.ts";

export type PlannedKind =
  "web" | "email" | "file" | "shared" | "place" | "area" | "reference" | "note" | "signpost";

/** A link that an export turns into words, and why. */
export interface LostLink {
  chapter: string;
  text: string;
  reason: string;
}

/** What an export will make of all links of one kind. */
export interface PlannedLinks {
  kind: PlannedKind;
  count: number;
  becomes: string;
  lost: LostLink[];
}

type Words = Record<ExportFormat, string>;
const everywhere = (words: string): Words => ({
  pdf: words,
  epub: words,
  web: words,
  markdown: words,
  docx: words,
});

const becoming: Record<PlannedKind, Words> = {
  web: {
    ...everywhere("Links to their full addresses."),
    pdf: "Links to their full addresses, each with its description for screen readers.",
  },
  email: everywhere("Open a message with subject, copies and first lines filled in."),
  file: {
    ...everywhere("Lead to the file in the folder “files” beside it; both go out in one folder (zip)."),
    epub: "The files are inside the e-book; a device that does not open one shows a page in its place.",
  },
  shared: everywhere("Open the shared file’s address; who may open it stays as it is on the drive."),
  place: {
    ...everywhere("Jump to the exact place."),
    pdf: "Jump to the exact line.",
    markdown: "Jump to the place, which is an anchor of HTML.",
    docx: "Jump to the place, which is a bookmark.",
  },
  area: {
    pdf: "The box around each area is a link; frames are drawn.",
    epub: "Each area is a link in its exact shape, without script.",
    web: "Each area is a link in its exact shape, without script.",
    markdown: "This format has no areas: each is a link behind its picture.",
    docx: "This format has no areas: each is a link behind its picture.",
  },
  reference: {
    ...everywhere("Say their target’s words or number, and jump there."),
    pdf: "Say their target’s words, number and page, and jump there.",
  },
  note: {
    pdf: "Lead to the note and back.",
    epub: "Lead to the note and back; devices that can show it over the page.",
    web: "Lead to the note and back.",
    markdown: "Are footnotes; whoever shows the text makes the ways there and back.",
    docx: "Are footnotes; the word processor makes the ways there and back.",
  },
  signpost: {
    ...everywhere("Jump to what they list, and back where the list has return links."),
    pdf: "Jump to what they list, with its page, and back where the list has return links.",
  },
};

const staysHome = "Become words: the files stay at home, as chosen.";

/** What an export with these options will make of every kind of link that a book has, in a fixed order. */
export function planLinks(
  book: Book,
  { format, addresses, companions }: Pick<ExportOptions, "format" | "addresses" | "companions">,
): PlannedLinks[] {
  const index = indexOf(book);
  const travelling = travellingFiles({ ...book, leavesFiles: false });
  const leaves = companions === "left-out" && format !== "epub";
  const plans = new Map<PlannedKind, PlannedLinks>();
  const planOf = (kind: PlannedKind): PlannedLinks => {
    let plan = plans.get(kind);
    if (!plan) {
      const becomes = kind === "file" && leaves ? staysHome : becoming[kind][format];
      plans.set(kind, (plan = { kind, count: 0, becomes, lost: [] }));
    }
    return plan;
  };
  let withoutPage = 0;
  book.chapters.forEach(({ doc }, at) => {
    const chapter = chapterTitle(doc);
    for (const use of linkUses(doc)) {
      const plan = planOf(kindOf(use));
      plan.count++;
      if (use.on === "reference") {
        const reference = referenceAttrs(doc.nodeAt(use.from)!);
        const says = referenceWords(reference, index, { chapter: at, position: use.from }, format === "pdf");
        if (says.is === "gap") plan.lost.push({ chapter, text: use.text, reason: says.reason });
        else if (format !== "pdf" && reference.form.startsWith("page")) withoutPage++;
        continue;
      }
      const way = travel(use.destination, index, travelling);
      if (way.as === "words") plan.lost.push({ chapter, text: use.text, reason: way.reason });
    }
    for (const { references } of numberNotes(doc)) if (references > 0) planOf("note").count += references;
    doc.descendants((node) => {
      if (node.type.name !== "signposts") return;
      const entries = signpostsOf(signpostAttrs(node), index, at).length;
      if (entries > 0) planOf("signpost").count += entries;
    });
    const returns = returnLinksOf(doc, at, index).length;
    if (returns > 0) planOf("signpost").count += returns;
  });
  const web = plans.get("web");
  if (web && format === "pdf" && addresses !== "none")
    web.becomes += addresses === "notes" ? " Written out in notes too." : " Listed at the end too.";
  const references = plans.get("reference");
  if (references && withoutPage > 0)
    references.becomes += ` ${withoutPage} that would tell a page ${withoutPage === 1 ? "says" : "say"} what was chosen for where there are none.`;
  return (Object.keys(becoming) as PlannedKind[]).flatMap((kind) => plans.get(kind) ?? []);
}

function kindOf({ on, destination }: LinkUse): PlannedKind {
  if (on === "reference") return "reference";
  if (on === "hotspot") return "area";
  if (destination.kind === "file" && "share" in destination) return "shared";
  return destination.kind;
}
