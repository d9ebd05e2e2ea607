import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { Button } from "../parts/button";

/** The key that commands are given with. */
export const modifier = navigator.platform.startsWith("Mac") ? "⌘" : "Ctrl";

const groups: [string, [string, string][]][] = [
  [
    "Links",
    [
      [`${modifier} K`, "Open the link line: link the selected words, or change the link at the cursor"],
      ["Enter", "In the link line: link"],
      ["Esc", "In the link line or a margin card: cancel"],
      ["Alt ↓, Alt ↑", "Next and previous link"],
      ["↑, ↓", "In the link line: another of the places that it offers"],
      [`${modifier} Enter`, "Follow the link at the cursor"],
      [`${modifier} click`, "Follow the link that is clicked"],
      ["Alt R", "Make a cross-reference at the cursor"],
      ["Alt A", "Put an anchor at the cursor or on the selected words"],
      ["Alt B", "Back to where a link in the book was followed from"],
      ["Alt X", "Remove the link at the cursor; its words stay"],
      ["Alt L", "Copy the link at the cursor"],
      ["Alt Shift L", "Give the copied link to the selected words"],
    ],
  ],
  [
    "Text",
    [
      [`${modifier} B, ${modifier} I, ${modifier} U`, "Bold, italic, underlined"],
      ["Alt C", "Code"],
      ["Alt .", "Paragraph to heading, heading to the next lower level"],
      ["Alt ,", "Heading to the next higher level, and back to paragraph"],
      [`${modifier} Z, ${modifier} Shift Z`, "Undo, redo"],
      [
        "Tab, Shift Tab",
        "In a list: deeper, higher. In a table: next, previous cell, behind the last a new row",
      ],
      [`${modifier} S`, "Save now (it saves by itself)"],
    ],
  ],
  [
    "Chapters",
    [
      ["Alt Page Down, Alt Page Up", "Next and previous chapter"],
      ["Space, ↑ ↓, Space", "On a chapter's grip: take it up, move it, put it down"],
      ["F2", "On a chapter: rename"],
      ["Delete", "On a chapter: delete (can be undone)"],
    ],
  ],
  [
    "Hotspots",
    [
      ["Arrow keys", "On an area in the list: move it; with Shift further"],
      ["D", "Make a copy"],
      ["Page Up, Page Down", "Put it higher or lower"],
      ["Delete", "Remove it"],
      ["Enter, Esc", "While drawing a polygon: close it, begin again"],
    ],
  ],
  [
    "Findings",
    [
      ["N, P", "Next and previous finding"],
      ["M, A", "Mend it; accept it, with a reason"],
      ["G", "Go there (Alt ← comes back)"],
      ["C", "Check its address again"],
      ["R, L", "The page is still right; I have looked"],
    ],
  ],
  ["Everywhere", [["?", "This list"]]],
];

/** The list of keys, which `?` opens wherever no text is being written. */
export function Keys() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      if (event.key !== "?" || target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
        return;
      setOpen(true);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button kind="quiet" aria-label="Keys" data-tip="Keys (?)">
          ?
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-50 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-y-0 right-0 z-50 w-[26rem] max-w-full overflow-y-auto border-l border-ink bg-paper p-6"
        >
          <div className="flex items-baseline justify-between">
            <Dialog.Title className="font-serif text-xl">Keys</Dialog.Title>
            <Dialog.Close asChild>
              <Button kind="quiet">Close</Button>
            </Dialog.Close>
          </div>
          {groups.map(([name, rows]) => (
            <section key={name} className="mt-4">
              <h3 className="text-sm text-faint">{name}</h3>
              <dl>
                {rows.map(([keys, what]) => (
                  <div key={keys} className="grid grid-cols-[9.5rem_1fr] gap-2 border-t border-hairline py-1">
                    <dt className="font-mono text-[0.85rem]">{keys}</dt>
                    <dd>{what}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
