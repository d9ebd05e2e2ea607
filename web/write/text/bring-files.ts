import type { Destination } from "@vennet/core/destination/kinds/kinds";
import type { EditorView } from "prosemirror-view";
import { TextSelection } from "prosemirror-state";
import { insertPicture } from "./insert-commands";
import { insertLinkedWords, linkWords, wordsOfSelection } from "./link-commands";

const mostBytes = 50 * 1024 * 1024;
const shown = ["image/png", "image/jpeg", "image/gif", "image/svg+xml", "image/webp", "image/avif"];

/** What keeps files that come with the text. */
export interface FileKeeper {
  picture: (file: File) => Promise<{ id: string; name: string }>;
  companion: (file: File) => Promise<Destination>;
}

/**
 * Brings files in that were dropped on the text or pasted into it: pictures are shown, others linked by their names, or
 * by the selected words. One that cannot be brought keeps none of the others away.
 * @throws Error that says of each such one why
 */
export async function bringFiles(view: EditorView, files: readonly File[], keep: FileKeeper): Promise<void> {
  await bringEach(files, async (file, i) => {
    if (file.size > mostBytes)
      throw new Error(`“${file.name}” is larger than 50 MB. Give readers a shared address for it instead.`);
    await bringFile(view, file, keep, i > 0);
  });
}

/**
 * Brings things one after the other; one that cannot be brought keeps none of the others away.
 * @throws Error that says of each such one why, once
 */
export async function bringEach<T>(
  all: readonly T[],
  bring: (one: T, at: number) => Promise<void>,
): Promise<void> {
  const problems = new Set<string>();
  for (const [i, one] of all.entries()) {
    try {
      await bring(one, i);
    } catch (error) {
      problems.add((error as Error).message);
    }
  }
  if (problems.size > 0) throw new Error([...problems].join("\n"));
}

async function bringFile(view: EditorView, file: File, keep: FileKeeper, isNext: boolean): Promise<void> {
  if (shown.includes(file.type)) {
    const { id, name } = await keep.picture(file);
    insertPicture(id, name)(view.state, view.dispatch, view);
    // The next one stands behind it.
    const { to } = view.state.selection;
    view.dispatch(view.state.tr.setSelection(TextSelection.near(view.state.doc.resolve(to))));
    return;
  }
  const link = { destination: await keep.companion(file), description: null };
  if (isNext) view.dispatch(view.state.tr.insertText(" "));
  const { from, to } = wordsOfSelection(view.state);
  view.dispatch(
    from < to ? linkWords(view.state, from, to, link) : insertLinkedWords(view.state, file.name, link),
  );
}
