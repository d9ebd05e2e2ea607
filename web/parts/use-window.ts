import { useSyncExternalStore } from "react";

const alone = matchMedia("(min-width: 1100px)");
const besidePages = matchMedia("(min-width: 1520px)");

/** Whether the window has room for margin cards beside the text, and for the set pages too where they are shown. */
export function useWideWindow(withPages: boolean): boolean {
  const query = withPages ? besidePages : alone;
  return useSyncExternalStore(
    (onChange) => {
      query.addEventListener("change", onChange);
      return () => query.removeEventListener("change", onChange);
    },
    () => query.matches,
  );
}
