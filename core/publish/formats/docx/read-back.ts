import { fileBeside, hasScheme, openContainer } from "../../../proof/exported-folder.ts";
import {
  foldBlanks,
  likeAllOthers,
  type ExportedLink,
  type ExportReading,
  type FormatTraits,
} from "../../../proof/exported-link.ts";
import { FaultList } from "../../../proof/fault-list.ts";
import { landingLength } from "../../../proof/landing.ts";
import { LandingTexts } from "../../../proof/landing-texts.ts";
import { parsePart } from "../../../proof/xml-part.ts";
import { auditDocx } from "./audit.ts";
import { judgeTag } from "./read-markup.ts";

const traits: FormatTraits = {
  isPaged: false,
  keepsRelative: false,
  hasOwnNotes: true,
  hasTitle: true,
  opensWindows: false,
  hasRoles: false,
};

/**
 * Reads every link out of a text document's own bytes (ECMA-376): the hyperlinks of its text and its footnotes,
 * their relationships and bookmarks. Knows nothing of the writer.
 * @throws ProofError where the document or a part of it cannot be read
 */
export function readDocx(bytes: Uint8Array): ExportReading {
  const { files, beside } = openContainer(bytes, "word/document.xml");
  const landings = new LandingTexts();
  const text = readPart(files, "document", "the text", landings);
  const footnotes = readPart(files, "footnotes", "a footnote", landings);
  const links = [...text.links, ...footnotes.links];
  for (const link of links) {
    const { destination } = link;
    if (destination.kind === "place") destination.landing = landings.found.get(destination.target) ?? null;
    if (destination.kind === "address" && !hasScheme(destination.address))
      link.destination = fileBeside(destination.address);
  }
  return {
    traits,
    pages: null,
    files: beside,
    pageOfPlace: new Map(),
    links,
    pictures: new Map(),
    placesInOrder: [...landings.found.keys()],
    placesAside: new Set(),
    notes: text.marks.map((id) => ({
      words: "",
      landing: footnotes.notes.get(id) ?? null,
      leadsBack: true,
      where: "the text",
    })),
    lists: [],
    linkedPages: [],
    faults: [...auditDocx(files), ...text.faults.all, ...footnotes.faults.all],
  };
}

/** Fields that tell a number or words of the document, and lead nowhere (17.16.5). */
const telling = /^\s*(NOTEREF|PAGEREF|REF|SEQ|PAGE|NUMPAGES|STYLEREF)\b(?!.*\\h)/;

/** What a part of the document has. */
interface ReadPart {
  links: ExportedLink[];
  /** The ids of the footnotes that are referred to, in their order. */
  marks: string[];
  /** The first words of footnotes, by their ids. */
  notes: Map<string, string>;
  faults: FaultList;
}

function readPart(
  files: Record<string, Uint8Array>,
  part: string,
  name: string,
  landings: LandingTexts,
): ReadPart {
  const targets = new Map<string, { address: string; isOutside: boolean; isLink: boolean }>();
  const read: ReadPart = { links: [], marks: [], notes: new Map(), faults: new FaultList() };
  const { links } = read;
  /** Open elements by which what is in them is deleted. */
  let deletions = 0;
  let note: string | null = null;
  const path = `word/${part}.xml`;
  const tell = (what: string): void => read.faults.tell(name, what);
  parsePart(files, `word/_rels/${part}.xml.rels`, (tag, attributes) => {
    if (tag === "Relationship")
      targets.set(attributes["Id"]!, {
        address: attributes["Target"]!,
        isOutside: attributes["TargetMode"] === "External",
        isLink: attributes["Type"]?.endsWith("/hyperlink") === true,
      });
  });
  let open: ExportedLink | null = null;
  /** The letters of the degrees of roots that are open, which come before what they are of (22.1.2.30). */
  const degrees: string[] = [];
  let isDegree = false;
  const add = (text: string): void => {
    if (isDegree) return void (degrees[degrees.length - 1] += text);
    landings.text(text);
    if (open) open.text += text;
    if (note !== null) read.notes.set(note, ((read.notes.get(note) ?? "") + text).slice(0, landingLength));
  };
  parsePart(
    files,
    path,
    (tag, attributes) => {
      const odd = judgeTag(path, tag, attributes);
      if (odd !== null) tell(odd);
      if (tag === "w:p") landings.open("p", null);
      if (tag === "w:bookmarkStart") {
        const bookmark = attributes["w:name"]!;
        if (landings.found.has(bookmark)) tell(`Two places have the name “${bookmark}”.`);
        landings.open("span", bookmark);
        landings.close();
      }
      if (tag === "w:br" || tag === "w:tab") add(" ");
      if (tag === "w:del" || tag === "w:moveFrom") deletions++;
      if (tag === "m:rad") degrees.push("");
      if (tag === "m:deg") isDegree = true;
      if ((tag === "w:vanish" || tag === "w:webHidden") && open) open.unreachable ??= "Its words are hidden.";
      if (tag === "a:hlinkClick") {
        const leads = targets.get(attributes["r:id"] ?? "")?.address;
        const { destination } = open ?? {};
        if (destination?.kind !== "address" || destination.address !== leads)
          tell(`A picture leads to “${leads ?? "nothing"}” by itself.`);
      }
      if (tag === "w:footnote") read.notes.set((note = attributes["w:id"]!), "");
      if (tag === "w:footnoteReference") read.marks.push(attributes["w:id"]!);
      const field = attributes["w:instr"];
      // A further mark of a footnote tells the number of the first (ECMA-376, 17.16.5.42).
      const again = /^\s*NOTEREF _note-(\d+)/.exec(field ?? "")?.[1];
      if (again !== undefined) read.marks.push(again);
      else if (field !== undefined && !telling.test(field)) tell(`A field does something: ${field}`);
      if (tag === "wp:docPr" && open) open.text += attributes["descr"] ?? "";
      if (tag !== "w:hyperlink") return;
      if (open) tell("A link lies in another.");
      const { "w:anchor": anchor, "r:id": id } = attributes;
      const target = targets.get(id ?? "");
      open = {
        ...likeAllOthers,
        isInNote: note !== null,
        destination:
          anchor !== undefined
            ? { kind: "place", target: anchor, landing: null }
            : { kind: "address", address: target?.address ?? "" },
        text: "",
        description: attributes["w:tooltip"] ?? null,
        where: `${name}, link ${links.length + 1}`,
        page: null,
        boxes: [],
        apparatus: false,
        unreachable:
          deletions > 0
            ? "It is marked as deleted."
            : target && !(target.isOutside && target.isLink)
              ? "Its address is taken for a part of the document."
              : null,
      };
      links.push(open);
    },
    {
      onText: (text, tag) => {
        // A blank by itself in a formula is room between its letters (22.1.2.116).
        if (tag === "w:t" || (tag === "m:t" && text.trim() !== "")) add(text);
        if (tag === "w:instrText" && text.trim() !== "" && !telling.test(text))
          tell(`A field does something: ${text}`);
      },
      onClose: (tag) => {
        if (tag === "w:p") landings.close();
        if (tag === "w:hyperlink") open = null;
        if (tag === "m:deg") isDegree = false;
        if (tag === "m:rad") add(degrees.pop()!);
        if (tag === "w:del" || tag === "w:moveFrom") deletions--;
        if (tag === "w:footnote") note = null;
      },
    },
  );
  for (const link of links) link.text = foldBlanks(link.text);
  return read;
}
