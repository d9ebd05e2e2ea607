import { useSyncExternalStore } from "react";

const query = matchMedia("(min-width: 1100px)");

/** Whether the window has room for margin cards beside the text. */
export function useWideWindow(): boolean {
  return useSyncExternalStore(
    (onChange) => {
      query.addEventListener("change", onChange);
      return () => query.removeEventListener("change", onChange);
    },
    () => query.matches,
  );
}
