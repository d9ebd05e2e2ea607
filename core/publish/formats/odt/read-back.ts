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
import { judgeAttribute, judgeElement } from "../../../proof/page-markup.ts";
import { parsePart } from "../../../proof/xml-part.ts";
import { auditOdt } from "./audit.ts";
import { judgeTag } from "./read-markup.ts";

type Attributes = Record<string, string>;

const traits: FormatTraits = {
  isPaged: false,
  keepsRelative: false,
  hasOwnNotes: true,
  hasTitle: true,
  opensWindows: false,
  hasRoles: false,
};

/**
 * Reads every link out of an OpenDocument text's own bytes: the links of its text and its notes, their addresses and
 * bookmarks. Knows nothing of the writer.
 * @throws ProofError where the document or a part of it cannot be read
 */
export function readOdt(bytes: Uint8Array): ExportReading {
  const { files, beside } = openContainer(bytes, "content.xml");
  const landings = new LandingTexts();
  const noteLandings = new LandingTexts();
  const reading = new ContentReading(files, landings, noteLandings);
  parsePart(files, "content.xml", (tag, attributes) => reading.open(tag, attributes), {
    onText: (words, tag) => reading.text(words, tag),
    onClose: (tag) => reading.close(tag),
  });
  const found = new Map([...landings.found, ...noteLandings.found]);
  for (const { destination } of reading.links)
    if (destination.kind === "place") destination.landing = found.get(destination.target) ?? null;
  return {
    traits,
    pages: null,
    files: beside,
    pageOfPlace: new Map(),
    links: [
      ...reading.links.filter(({ isInNote }) => !isInNote),
      ...reading.links.filter(({ isInNote }) => isInNote),
    ],
    pictures: new Map(),
    placesInOrder: [...landings.found.keys(), ...noteLandings.found.keys()],
    placesAside: new Set(),
    notes: reading.marks.map((id) => ({
      words: "",
      landing: reading.notes.get(id) ?? null,
      leadsBack: true,
      where: "the text",
    })),
    lists: [],
    linkedPages: [],
    faults: [...auditOdt(files), ...reading.faults.all],
  };
}

class ContentReading {
  readonly links: ExportedLink[] = [];
  /** The ids of the notes that are referred to, in the order of the text. */
  readonly marks: string[] = [];
  /** The first words of notes, by their ids. */
  readonly notes = new Map<string, string>();
  readonly faults = new FaultList();
  private link: ExportedLink | null = null;
  /** The notes that are open, one within another. */
  private readonly opened: string[] = [];
  /** How many elements are open whose words are not read. */
  private silent = 0;
  private hidden = 0;

  constructor(
    private readonly files: Record<string, Uint8Array>,
    private readonly inText: LandingTexts,
    private readonly inNotes: LandingTexts,
  ) {}

  open(tag: string, attributes: Attributes): void {
    const odd = judgeTag("content.xml", tag, attributes);
    if (odd !== null) this.tell(odd);
    if (attributes["text:display"] === "none") this.hidden++;
    if (tag === "text:tracked-changes") this.tell("Words of the document wait to be agreed to.");
    if (silentTags.has(tag)) this.silent++;
    switch (tag) {
      case "text:p":
      case "text:h":
        this.landings.open(tag === "text:p" ? "p" : "h1", null);
        return;
      case "text:bookmark":
      case "text:bookmark-start":
        return this.place(attributes["text:name"] ?? "");
      case "text:note":
        return this.note(attributes["text:id"] ?? "");
      case "text:note-ref":
        this.mark(attributes["text:ref-name"] ?? "");
        this.silent++;
        return;
      case "text:s":
      case "text:tab":
      case "text:line-break":
        return this.add(" ");
      case "draw:object":
        return this.add(this.lettersOf(attributes["xlink:href"] ?? ""));
      case "text:a":
      case "draw:a":
        return this.begin(attributes);
    }
  }

  text(words: string, tag: string): void {
    // What is said of a picture stands for it; a formula's letters have been read.
    if (tag === "svg:desc" && this.link && !this.isFormula) this.link.text += words;
    else if (this.silent === 0) this.add(words);
  }

  close(tag: string): void {
    if (silentTags.has(tag) || tag === "text:note-ref") this.silent--;
    if (tag === "text:p" || tag === "text:h") this.landings.close();
    if (tag === "text:a" || tag === "draw:a") {
      if (this.link) this.link.text = foldBlanks(this.link.text);
      this.link = null;
    }
    if (tag === "text:note") this.opened.pop();
    if (tag === "draw:frame") this.isFormula = false;
  }

  private isFormula = false;

  /** Words at landings in notes stand apart from those of the paragraphs that call them. */
  private get landings(): LandingTexts {
    return this.opened.length > 0 ? this.inNotes : this.inText;
  }

  private begin(attributes: Attributes): void {
    const href = attributes["xlink:href"] ?? "";
    if (this.link) this.tell(`A link lies in another: ${href}`);
    // What is beside the document is one folder above what is in it (part 2, 3.7).
    const isBeside = href.startsWith("../");
    this.link = {
      ...likeAllOthers,
      isInNote: this.opened.length > 0,
      destination: href.startsWith("#")
        ? { kind: "place", target: href.slice(1), landing: null }
        : isBeside
          ? fileBeside(href.slice("../".length))
          : { kind: "address", address: href },
      text: "",
      description: attributes["office:title"] ?? null,
      where: `link ${this.links.length + 1}`,
      page: null,
      boxes: [],
      apparatus: false,
      unreachable:
        this.hidden > 0
          ? "Its words are hidden."
          : href.startsWith("#") || isBeside || hasScheme(href)
            ? null
            : "Its address is taken for a part of the document.",
    };
    this.links.push(this.link);
  }

  private place(name: string): void {
    if (this.inText.found.has(name) || this.inNotes.found.has(name))
      this.tell(`Two places have the name “${name}”.`);
    this.landings.open("span", name);
    this.landings.close();
  }

  private note(id: string): void {
    if (this.notes.has(id)) this.tell(`Two notes have the name “${id}”.`);
    this.mark(id);
    this.notes.set(id, "");
    this.opened.push(id);
  }

  /** The mark of a note in the text; those in notes call what the text may call elsewhere. */
  private mark(id: string): void {
    if (this.opened.length === 0) this.marks.push(id);
  }

  private add(words: string): void {
    this.landings.text(words);
    if (this.link) this.link.text += words;
    const note = this.opened.at(-1);
    if (note !== undefined) this.notes.set(note, (this.notes.get(note)! + words).slice(0, landingLength));
  }

  /** The letters of a formula, which is a document of its own. */
  private lettersOf(href: string): string {
    this.isFormula = true;
    let letters = "";
    // Blanks between elements are none of the formula's (MathML 3, 2.1.7).
    const onText = (words: string, tag: string): void => void (mathTokens.has(tag) && (letters += words));
    const onOpen = (tag: string, attributes: Attributes): void => {
      const judged = Object.entries(attributes).map(([name, value]) => judgeAttribute(tag, name, value));
      for (const odd of [judgeElement(tag), ...judged]) if (odd !== null) this.tell(`A formula: ${odd}`);
    };
    parsePart(this.files, `${href.replace(/^\.\//, "")}/content.xml`, onOpen, { onText });
    return letters;
  }

  private tell(what: string): void {
    this.faults.tell("the text", what);
  }
}

/** The elements of MathML that hold letters (3.2). */
const mathTokens = new Set(["mi", "mn", "mo", "ms", "mtext"]);

/** What holds no words of the text. */
const silentTags = new Set(["text:note-citation", "svg:title", "svg:desc", "office:automatic-styles"]);
