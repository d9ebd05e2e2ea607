import { useEffect, type RefObject } from "react";

/** What each key presses in the finding that the focus is on, by the name of its button or link. */
const presses: Record<string, string> = {
  m: "mend",
  a: "accept",
  r: "still-right",
  l: "looked",
  c: "check",
  g: "go",
};

/**
 * Goes through a list of findings by keys alone: n and p to the next and the one before, and a letter for each thing that
 * can be done with one. They are keys of the list, and of nothing beside it (WCAG 2.2 SC 2.1.4). A finding that is done with
 * gives the focus to the one that takes its place.
 * @param findings what is listed, so that a change of it is noticed
 */
export function useFindingKeys(list: RefObject<HTMLElement | null>, findings: unknown): void {
  useEffect(() => {
    const { current } = list;
    if (!current) return;
    // The one that had it is gone, or nobody has had it yet.
    if (document.activeElement !== document.body) return;
    const rows = rowsOf(current);
    const place = Number(current.dataset["at"] ?? -1);
    (place >= 0 ? rows[Math.min(place, rows.length - 1)] : current)?.focus({ preventScroll: place < 0 });
  }, [list, findings]);

  useEffect(() => {
    const { current } = list;
    if (!current) return;
    const onFocus = (): void => {
      const at = rowsOf(current).findIndex((row) => row.contains(document.activeElement));
      if (at !== -1) current.dataset["at"] = String(at);
    };
    const onKey = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      const isWriting = /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName);
      if (isWriting || event.ctrlKey || event.metaKey || event.altKey) return;
      const rows = rowsOf(current);
      const here = rows.findIndex((row) => row.contains(document.activeElement));
      const key = event.key.toLowerCase();
      if (key === "n" || key === "p") {
        const next = here === -1 ? 0 : here + (key === "n" ? 1 : -1);
        const row = rows[Math.max(0, Math.min(next, rows.length - 1))];
        row?.focus();
        row?.scrollIntoView({ block: "nearest" });
      } else {
        const name = presses[key];
        const press = name && rows[here]?.querySelector<HTMLElement>(`[data-press="${name}"]`);
        if (!press) return;
        press.click();
      }
      event.preventDefault();
    };
    current.addEventListener("keydown", onKey);
    current.addEventListener("focusin", onFocus);
    return () => {
      current.removeEventListener("keydown", onKey);
      current.removeEventListener("focusin", onFocus);
    };
  }, [list]);
}

function rowsOf(list: HTMLElement): HTMLElement[] {
  return [...list.querySelectorAll<HTMLElement>("[data-finding]")];
}
