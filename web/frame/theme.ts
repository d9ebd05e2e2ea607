import { create } from "zustand";

export type Theme = "light" | "dark";
const key = "vennet-theme";

function initial(): Theme {
  const kept = localStorage.getItem(key);
  if (kept === "light" || kept === "dark") return kept;
  return matchMedia("(prefers-color-scheme: dark)").matches ? "dark" : "light";
}

interface ThemeState {
  theme: Theme;
  toggle: () => void;
}

export const useTheme = create<ThemeState>((set, get) => ({
  theme: initial(),
  toggle: () => {
    const theme = get().theme === "light" ? "dark" : "light";
    localStorage.setItem(key, theme);
    set({ theme });
  },
}));

/** Keeps the page's theme in step with the state. */
export function showTheme(): void {
  const show = ({ theme }: ThemeState): void => {
    document.documentElement.dataset["theme"] = theme;
  };
  show(useTheme.getState());
  useTheme.subscribe(show);
}
