import { BookIndex, type PlacesOfChapter } from "@vennet/core/manuscript/book-index";
import type { Conventions } from "@vennet/core/manuscript/conventions";
import { linkUses } from "@vennet/core/manuscript/links";
import { numberNotes, referenceId } from "@vennet/core/manuscript/notes";
import { placesOf } from "@vennet/core/manuscript/outline";
import { referenceWords } from "@vennet/core/manuscript/references";
import { referenceAttrs, signpostAttrs } from "@vennet/core/manuscript/attributes";
import { returnLinksOf, signpostsOf, type Signpost } from "@vennet/core/manuscript/signposts";
import type { Fragment, Node } from "prosemirror-model";
import { Plugin, PluginKey, type EditorState, type Transaction } from "prosemirror-state";
import { AddMarkStep, RemoveMarkStep, ReplaceStep } from "prosemirror-transform";
import { Decoration, DecorationSet } from "prosemirror-view";

/** The book around the chapter that is open, as the server last told it. */
export interface SurroundingBook {
  title: string;
  language: string;
  conventions: Conventions;
  /** In reading order, the open chapter among them; its own places are read from the text. */
  chapters: (PlacesOfChapter & { id: string })[];
  /** On which page of the last PDF each place fell. */
  pageOfPlace: ReadonlyMap<string, string>;
  /** The places to which links of the book lead. */
  ledTo: ReadonlySet<string>;
}

interface BookNumbers {
  book: SurroundingBook | null;
  /** What there is to say of notes, captions and lists, by their ids. */
  findings: ReadonlyMap<string, string>;
  /** Made when it is asked for: what is typed within a paragraph changes no number. */
  index: () => BookIndex | null;
  chapter: number;
  decorations: DecorationSet;
}

/** What the view of a cross-reference is told. */
export interface ReferenceShown {
  words: string;
  isGap: boolean;
}

/** What the view of a signpost list is told. */
export interface SignpostsShown {
  entries: Signpost[];
  pages: ReadonlyMap<string, string>;
}

const key = new PluginKey<BookNumbers>("book-numbers");

/** Shows the numbers, words, lists and return links that follow from the whole book, as the exports will have them. */
export function bookNumbers(chapterId: string): Plugin<BookNumbers> {
  const indexOf = (doc: Node, book: SurroundingBook): BookIndex => {
    const chapters = book.chapters.map((one) =>
      one.id === chapterId ? { role: one.role, places: placesOf(doc) } : one,
    );
    return new BookIndex(chapters, book.conventions, book);
  };
  const reckon = (doc: Node, { book, findings }: Pick<BookNumbers, "book" | "findings">): BookNumbers => {
    if (!book) return { book, findings, index: () => null, chapter: 0, decorations: DecorationSet.empty };
    const chapter = Math.max(
      0,
      book.chapters.findIndex(({ id }) => id === chapterId),
    );
    const index = indexOf(doc, book);
    const decorations = DecorationSet.create(doc, marksOf(doc, index, chapter, book, findings));
    return { book, findings, index: () => index, chapter, decorations };
  };
  /** The same marks where the text has them now. */
  const moved = (value: BookNumbers, { doc, mapping }: Transaction): BookNumbers => {
    const { book, decorations } = value;
    let index: BookIndex | null = null;
    return {
      ...value,
      index: () => (index ??= book && indexOf(doc, book)),
      decorations: decorations.map(mapping, doc),
    };
  };
  return new Plugin<BookNumbers>({
    key,
    state: {
      init: (_config, state) => reckon(state.doc, { book: null, findings: new Map() }),
      apply(transaction, value) {
        const told = transaction.getMeta(key) as Partial<BookNumbers> | undefined;
        if (told) return reckon(transaction.doc, { ...value, ...told });
        if (!transaction.docChanged) return value;
        return changesWordsAlone(transaction) ? moved(value, transaction) : reckon(transaction.doc, value);
      },
    },
    props: {
      decorations: (state) => key.getState(state)!.decorations,
    },
  });
}

/** Tells the numbers of the book around the chapter, or of what the rules found in it. */
export function tellBookNumbers(
  transaction: Transaction,
  told: Partial<Pick<BookNumbers, "book" | "findings">>,
): Transaction {
  return transaction.setMeta(key, told).setMeta("addToHistory", false);
}

/** The book's places with their numbers, the open chapter's as it stands now; null until the book is known. */
export function bookAround(
  state: EditorState,
): { index: BookIndex; chapter: number; pages: ReadonlyMap<string, string> } | null {
  const { book, index: asked, chapter } = key.getState(state)!;
  const index = asked();
  return book && index ? { index, chapter, pages: book.pageOfPlace } : null;
}

/** Whether links or cross-references lead to a place, from the open text as it stands or from other chapters. */
export function isLedTo(state: EditorState, place: string): boolean {
  const fromHere = linkUses(state.doc).some(
    ({ destination }) => destination.kind === "place" && destination.target === place,
  );
  return fromHere || (key.getState(state)?.book?.ledTo.has(place) ?? false);
}

/**
 * Whether all that changes is words of paragraphs from which no number, list or reference takes its own: typing, in
 * most of a text. What is marked changes none of these either.
 */
export function changesWordsAlone({ steps, docs }: Transaction): boolean {
  return steps.every((step, i) => {
    if (step instanceof AddMarkStep || step instanceof RemoveMarkStep) return true;
    if (!(step instanceof ReplaceStep) || step.slice.openStart !== 0 || step.slice.openEnd !== 0)
      return false;
    const before = docs[i]!;
    const [from, to] = [before.resolve(step.from), before.resolve(step.to)];
    const { parent } = from;
    if (!from.sameParent(to) || parent.type.name !== "paragraph") return false;
    // Its note is named by the words of its beginning.
    if (from.node(1).type.name === "note") return false;
    // Readers are shown the words behind an anchor.
    const isNamed = parent.children.some(({ type }) => type.name === "anchor");
    const gone = parent.slice(from.parentOffset, to.parentOffset).content;
    return !isNamed && onlyWords(step.slice.content) && onlyWords(gone);
  });
}

function onlyWords(content: Fragment): boolean {
  return content.content.every(({ isText }) => isText);
}

function marksOf(
  doc: Node,
  index: BookIndex,
  chapter: number,
  book: SurroundingBook,
  findings: ReadonlyMap<string, string>,
): Decoration[] {
  const marks: Decoration[] = [];
  const references = new Map(numberNotes(doc).map((note) => [note.id, note.references]));
  const tell = (subject: string, after: number): void => {
    const message = findings.get(subject);
    if (message)
      marks.push(Decoration.widget(after, () => findingElement(message), { side: -1, key: message }));
  };
  doc.descendants((node, position) => {
    const end = position + node.nodeSize;
    const whole = (attrs: Record<string, string>, spec = {}): void => {
      marks.push(Decoration.node(position, end, attrs, spec));
    };
    const id = node.attrs["id"] as string;
    const place = index.places.get(id);
    switch (node.type.name) {
      case "title":
      case "heading":
        if (place?.number) whole({ "data-number": place.number });
        return false;
      case "caption": {
        const label = place ? index.labelOf(place) : null;
        if (label) whole({ "data-number": label });
        tell(id, end);
        return true;
      }
      case "note": {
        whole({ "data-number": place?.number ?? "?" });
        const { returnWords } = index.conventions;
        const count = references.get(id) ?? 0;
        if (count > 0)
          marks.push(
            Decoration.widget(end - 1, () => noteReturnsElement(id, count, returnWords), {
              side: 1,
              ignoreSelection: true,
              key: `${id} ${count} ${returnWords}`,
            }),
          );
        tell(id, end - 1);
        return true;
      }
      case "note_reference": {
        const note = node.attrs["note"] as string;
        const number = references.has(note) ? index.places.get(note)?.number : null;
        const message = findings.get(note);
        whole({
          "data-number": number ?? "?",
          "data-goto": note,
          ...(number ? {} : { class: "gap", title: message ?? "Its note is gone" }),
        });
        return false;
      }
      case "signposts": {
        const entries = signpostsOf(signpostAttrs(node), index, chapter);
        whole({}, { shown: { entries, pages: book.pageOfPlace } satisfies SignpostsShown });
        tell(id, end);
        return false;
      }
      default:
        return true;
    }
  });
  for (const use of linkUses(doc)) {
    if (use.on !== "reference") continue;
    const reference = referenceAttrs(doc.nodeAt(use.from)!);
    const says = referenceWords(reference, index, { chapter, position: use.from }, true);
    const words =
      says.kind === "words"
        ? says.words
        : says.kind === "page"
          ? says.before + (book.pageOfPlace.get(reference.target) ?? "…") + says.after
          : says.reason;
    const shown: ReferenceShown = { words, isGap: says.kind === "gap" };
    marks.push(Decoration.node(use.from, use.to, {}, { shown }));
  }
  for (const { at, list, words } of returnLinksOf(doc, chapter, index))
    marks.push(
      Decoration.widget(at, () => returnElement(list, words), {
        side: -1,
        ignoreSelection: true,
        key: `${list} ${words}`,
      }),
    );
  return marks;
}

function returnElement(list: string, words: string): HTMLElement {
  const paragraph = document.createElement("p");
  paragraph.className = "made-return";
  paragraph.contentEditable = "false";
  const link = document.createElement("a");
  link.dataset["goto"] = list;
  link.dataset["kind"] = "place";
  link.textContent = words;
  paragraph.append(link);
  return paragraph;
}

function noteReturnsElement(note: string, count: number, words: string): HTMLElement {
  const paragraph = document.createElement("p");
  paragraph.className = "made-return";
  paragraph.contentEditable = "false";
  for (let which = 1; which <= count; which++) {
    const link = document.createElement("a");
    link.dataset["goto"] = referenceId(note, which);
    link.dataset["kind"] = "place";
    link.textContent = words;
    paragraph.append(link, " ");
  }
  return paragraph;
}

function findingElement(message: string): HTMLElement {
  const paragraph = document.createElement("p");
  paragraph.className = "made-finding";
  paragraph.contentEditable = "false";
  paragraph.textContent = message;
  return paragraph;
}
