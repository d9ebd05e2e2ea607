import { kindNames, kinds, type DestinationKind } from "../destination/kinds/kinds.ts";
import { indexOf, type Book } from "../manuscript/book.ts";
import { chapterTitle } from "../manuscript/chapter.ts";
import { linkUses, type LinkUse } from "../manuscript/links.ts";
import { numberNotes } from "../manuscript/notes.ts";
import { referenceWords } from "../manuscript/references.ts";
import { referenceAttrs, signpostAttrs } from "../manuscript/attributes.ts";
import { returnLinksOf, signpostsOf } from "../manuscript/signposts.ts";
import type { PlannedKind } from "./formats/format.ts";
import { formats, type ExportOptions } from "./formats/formats.ts";
import { leavesFiles } from "./prepare.ts";
import { travel } from "./travel.ts";
import { travellingFiles } from "./travelling-files.ts";
import { nodeAt } from "../manuscript/positions.ts";

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

// What is made of them everywhere, where the format does not say otherwise.
const becoming: Record<PlannedKind, string> = {
  ...(Object.fromEntries(kindNames.map((kind) => [kind, kinds[kind].becomes])) as Record<
    DestinationKind,
    string
  >),
  shared: "Open the shared file’s address; who may open it stays as it is on the drive.",
  area: "Each area is a link.",
  reference: "Say their target’s words or number, and jump there.",
  note: "Lead to the note and back.",
  signpost: "Jump to what they list, and back where the list has return links.",
};

// In which order they are told.
const order: readonly PlannedKind[] = [
  "web",
  "email",
  "file",
  "shared",
  ...kindNames.filter((kind) => kind !== "web" && kind !== "email" && kind !== "file"),
  "area",
  "reference",
  "note",
  "signpost",
];

const staysHome = "Become words: the files stay at home, as chosen.";

/** What an export with these options will make of every kind of link that a book has, in a fixed order. */
export function planLinks(book: Book, options: ExportOptions): PlannedLinks[] {
  const { hasPages, keepsRelative, becomes, becomesToo } = formats[options.format];
  const index = indexOf(book);
  const travelling = travellingFiles({ ...book, leavesFiles: false });
  const leaves = leavesFiles(options);
  const plans = new Map<PlannedKind, PlannedLinks>();
  const planOf = (kind: PlannedKind): PlannedLinks => {
    let plan = plans.get(kind);
    if (!plan) {
      const words = kind === "file" && leaves ? staysHome : (becomes[kind] ?? becoming[kind]);
      plans.set(kind, (plan = { kind, count: 0, becomes: words, lost: [] }));
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
        const reference = referenceAttrs(nodeAt(doc, use.from)!);
        const says = referenceWords(reference, index, { chapter: at, position: use.from }, hasPages);
        if (says.kind === "gap") plan.lost.push({ chapter, text: use.text, reason: says.reason });
        else if (!hasPages && reference.form.startsWith("page")) withoutPage++;
        continue;
      }
      const way = travel(use.destination, index, travelling, keepsRelative);
      if (way.kind === "words") plan.lost.push({ chapter, text: use.text, reason: way.reason });
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
  for (const plan of plans.values()) plan.becomes += becomesToo?.(plan.kind, options) ?? "";
  const references = plans.get("reference");
  if (references && withoutPage > 0)
    references.becomes += ` ${withoutPage} that would tell a page ${withoutPage === 1 ? "says" : "say"} what was chosen for where there are none.`;
  return order.flatMap((kind) => plans.get(kind) ?? []);
}

function kindOf({ on, destination }: LinkUse): PlannedKind {
  if (on === "reference") return "reference";
  if (on === "hotspot") return "area";
  if (destination.kind === "file" && "share" in destination) return "shared";
  return destination.kind;
}
