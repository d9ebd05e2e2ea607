import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { Pasted } from "@vennet/core/import/pasted/pasted";
import { changeLink } from "@vennet/core/manuscript/edit-links";
import { linkUses } from "@vennet/core/manuscript/links";
import type { Transaction } from "prosemirror-state";
import type { EditorView } from "prosemirror-view";
import { api, answerOf } from "../../api/client";
import { bringEach, type FileKeeper } from "./bring-files";

/** A picture or companion file that pasted text has in the book that it was copied from. */
export interface FileElsewhere {
  book: string;
  file: string;
  isPicture: boolean;
}

const isId = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i;
const withFiles = "img[data-file], a[data-kind=file]";

/** Says of the pictures and files in what goes to the clipboard in which book they are. */
export function nameBook(written: ParentNode, bookId: string): void {
  for (const one of written.querySelectorAll<HTMLElement>(withFiles)) one.dataset["book"] = bookId;
}

/** What pasted text of this editor has in other books than the one it is pasted into. */
export function filesElsewhere(dom: HTMLElement, bookId: string): FileElsewhere[] {
  const found = new Map<string, FileElsewhere>();
  for (const { dataset } of dom.querySelectorAll<HTMLElement>(withFiles)) {
    const { book = "", file: picture = "" } = dataset;
    // Whoever wrote this to the clipboard may not have been this editor.
    if (!isId.test(book) || book === bookId) continue;
    const led = [dataset["destination"], dataset["hotspots"]].flatMap((json) => filesIn(json));
    if (isId.test(picture)) found.set(picture, { book, file: picture, isPicture: true });
    for (const file of led)
      if (isId.test(file) && !found.has(file)) found.set(file, { book, file, isPicture: false });
  }
  return [...found.values()];
}

/** The companion files to which destinations lead that the editor wrote to the clipboard. */
function filesIn(json: string | undefined): string[] {
  return [...(json ?? "").matchAll(/"kind":"file","file":"([^"]+)"/g)].map(([, file]) => file!);
}

/**
 * Brings files of another book into the book of a text that was pasted, and leads the text to them.
 * @throws Error that says of each that cannot be brought why; the text is as it was pasted then
 */
export function bringFromBooks(
  view: EditorView,
  files: readonly FileElsewhere[],
  keep: FileKeeper,
): Promise<void> {
  return bringEach(files, async ({ book, file, isPicture }) => {
    const answer = await fetch(`/api/books/${book}/files/${file}`);
    const what = isPicture ? "A picture" : "A file";
    if (!answer.ok)
      throw new Error(`${what} of the other book could not be brought along: it is not there any more.`);
    const name = isPicture ? "picture" : await nameOf(book, file);
    const content = new File([await answer.blob()], name, { type: answer.headers.get("Content-Type") ?? "" });
    if (isPicture) view.dispatch(withPicture(view.state.tr, file, (await keep.picture(content)).id));
    else view.dispatch(withFile(view.state.tr, file, await keep.companion(content)));
  });
}

async function nameOf(bookId: string, fileId: string): Promise<string> {
  const files = await answerOf(api.GET("/api/books/{bookId}/files", { params: { path: { bookId } } }));
  return files.find(({ id }) => id === fileId)?.name ?? "file";
}

/**
 * Stores pictures that were inside what was pasted, and leads the text to them.
 * @throws Error that says of each that cannot be brought why
 */
export function bringPasted(view: EditorView, pictures: Pasted["pictures"], keep: FileKeeper): Promise<void> {
  return bringEach(pictures, async ({ file, mediaType, bytes }, i) => {
    const content = new File([bytes as BlobPart], `picture-${i + 1}`, { type: mediaType.toLowerCase() });
    try {
      const { id, name } = await keep.picture(content);
      view.dispatch(withPicture(view.state.tr, file, id, name));
    } catch (error) {
      // What it says stands in its place.
      view.dispatch(withPicture(view.state.tr, file, null));
      throw error;
    }
  });
}

function withPicture(change: Transaction, from: string, to: string | null, name?: string): Transaction {
  change.doc.descendants((node, at) => {
    if (node.type.name !== "picture" || node.attrs["file"] !== from) return;
    change.setNodeAttribute(at, "file", to);
    if (name !== undefined) change.setNodeAttribute(at, "source", name);
  });
  return change.setMeta("addToHistory", false);
}

function withFile(change: Transaction, from: string, to: Destination): Transaction {
  for (const use of linkUses(change.doc)) {
    const { destination } = use;
    if (destination.kind === "file" && "file" in destination && destination.file === from)
      changeLink(change, use, { destination: { ...destination, ...to } });
  }
  return change.setMeta("addToHistory", false);
}
