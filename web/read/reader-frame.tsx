import { ChevronLeft, ChevronRight, Footprints, Undo2 } from "lucide-react";
import { useEffect, useRef, useState, type ReactNode, type Ref } from "react";
import { Button } from "../parts/button";

/** An entry of the file's own list of contents. */
export interface ContentsEntry {
  words: string;
  depth: number;
}

/** What the readers of all formats have: turning, settings, Back, the file's contents, and what a link leads to. */
export function ReaderFrame<E extends ContentsEntry>({
  unit,
  position,
  onTurn,
  settings,
  canGoBack,
  onBack,
  told,
  contentsName,
  contents,
  onGoTo,
  thumbnails,
  deskName,
  desk,
  walk,
  asked,
  invitation,
  children,
}: {
  /** What is turned: a page or a screen. */
  unit: "page" | "screen";
  position: ReactNode;
  onTurn: (by: 1 | -1) => void;
  settings: ReactNode;
  canGoBack: boolean;
  onBack: () => void;
  /** What happened last, for those who do not see it. */
  told: string;
  contentsName: string;
  contents: readonly E[];
  onGoTo: (entry: E) => void;
  /** The pages in small, where there are pages. */
  thumbnails?: ReactNode;
  deskName: string;
  desk?: Ref<HTMLDivElement>;
  /** The robot that follows every link of the file. */
  walk: ReactNode;
  /** The link that was pressed and leads out of the file. */
  asked: ReactNode | null;
  /** What can be done where no link was pressed. */
  invitation: string;
  children: ReactNode;
}) {
  const [walks, setWalks] = useState(false);
  const [inSmall, setInSmall] = useState(false);
  const turn = useRef(onTurn);
  turn.current = onTurn;
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if ((event.target as HTMLElement).closest("input, select, textarea") || event.altKey || event.ctrlKey)
        return;
      if (event.key === "ArrowRight" || event.key === "PageDown") turn.current(1);
      else if (event.key === "ArrowLeft" || event.key === "PageUp") turn.current(-1);
      else return;
      event.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const upper = unit === "page" ? "Page" : "Screen";
  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-hairline px-5 py-1">
        <span className="flex items-center gap-1">
          <Button kind="quiet" aria-label={`${upper} before`} onClick={() => onTurn(-1)}>
            <ChevronLeft aria-hidden size={17} />
          </Button>
          {position}
          <Button kind="quiet" aria-label={`Next ${unit}`} onClick={() => onTurn(1)}>
            <ChevronRight aria-hidden size={17} />
          </Button>
        </span>
        {settings}
        <Button disabled={!canGoBack} onClick={onBack}>
          <Undo2 aria-hidden size={15} /> Back
        </Button>
        <Button aria-pressed={walks} onClick={() => setWalks(!walks)} className="aria-pressed:bg-blue-wash">
          <Footprints aria-hidden size={15} /> Walk the links
        </Button>
        <span role="status" className="text-faint">
          {told}
        </span>
      </div>
      <div
        className={`grid min-h-0 grow max-md:grid-rows-[auto_minmax(0,1fr)_auto] ${walks ? "md:grid-cols-[12rem_1fr_25rem]" : "md:grid-cols-[15rem_1fr_18rem]"}`}
      >
        <nav
          aria-label={inSmall ? "Pages in small" : contentsName}
          className="overflow-y-auto border-r border-hairline p-3 text-sm max-md:max-h-28"
        >
          {thumbnails && (
            <Button
              aria-pressed={inSmall}
              onClick={() => setInSmall(!inSmall)}
              className="mb-2 aria-pressed:bg-blue-wash"
            >
              Pages in small
            </Button>
          )}
          {inSmall ? (
            thumbnails
          ) : (
            <ul>
              {contents.map((entry, i) => (
                <li key={i} style={{ paddingLeft: `${entry.depth}rem` }}>
                  <button
                    type="button"
                    onClick={() => onGoTo(entry)}
                    className="min-h-[24px] text-left underline-offset-4 hover:text-blue hover:underline"
                  >
                    {entry.words}
                  </button>
                </li>
              ))}
            </ul>
          )}
        </nav>
        <div ref={desk} tabIndex={0} role="region" aria-label={deskName} className="overflow-auto p-5">
          {children}
        </div>
        <aside
          aria-label={walks ? "The walk" : "The link that was followed"}
          className="flex min-h-0 flex-col border-l border-hairline max-md:max-h-[45dvh] max-md:overflow-y-auto max-md:border-t"
        >
          {walks && <div className="min-h-0 grow p-4 pb-0">{walk}</div>}
          {(asked !== null || !walks) && (
            <div className={`overflow-y-auto p-4 ${walks ? "border-t border-edge bg-desk" : ""}`}>
              {asked ?? <p className="text-faint">{invitation}</p>}
            </div>
          )}
        </aside>
      </div>
    </div>
  );
}

/** A setting that is chosen from a few. */
export function Choice({ label, children }: { label: string; children: ReactNode }) {
  return (
    <label className="flex items-center gap-2">
      {label}
      {children}
    </label>
  );
}

/** A setting that is on or off. */
export function Tick({
  label,
  isOn,
  onChange,
}: {
  label: string;
  isOn: boolean;
  onChange: (isOn: boolean) => void;
}) {
  return (
    <Choice label="">
      <input
        type="checkbox"
        checked={isOn}
        onChange={(event) => onChange(event.target.checked)}
        className="size-4 accent-blue"
      />
      {label}
    </Choice>
  );
}

export const settingBox = "min-h-7 border border-hairline bg-paper px-1";
