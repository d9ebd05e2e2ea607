import { useStore } from "zustand";
import { Button } from "../../parts/button";
import type { ChapterSaver } from "./chapter-saver";

const words = {
  saved: "Saved",
  unsaved: "Not saved yet",
  saving: "Saving …",
  away: "Server away: kept in this browser",
  conflict: "Changed elsewhere",
  refused: "Not saved",
};

/** How the open chapter stands with the server, in two words. */
export function SaveState({ saver }: { saver: ChapterSaver }) {
  const status = useStore(saver.status);
  const grave = status.kind === "away" || status.kind === "conflict" || status.kind === "refused";
  return (
    <span
      role="status"
      className={`text-sm ${grave ? "font-semibold text-red" : "text-faint"} ${status.kind === "saved" ? "max-[480px]:sr-only" : ""}`}
    >
      {words[status.kind]}
      {status.kind === "refused" && (
        <>
          {": "}
          {status.message} <Button onClick={saver.saveNow}>Try again</Button>
        </>
      )}
    </span>
  );
}
