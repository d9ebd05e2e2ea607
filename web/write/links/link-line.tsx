import { nameDestination, writeDestination } from "@vennet/core/destination/destination";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { readMailto, writeMailto, type MailMessage } from "@vennet/core/destination/mailto";
import { isPlainlyAnAddress } from "@vennet/core/destination/recognise";
import type { KnownDestination } from "@vennet/core/destination/suggest";
import { withoutTracking } from "@vennet/core/destination/tracking";
import { useEffect, useId, useMemo, useRef, useState, type KeyboardEvent } from "react";
import { Button } from "../../parts/button";
import { PointInFile } from "../../destinations/point-in-file";
import { usePagedFile } from "../../destinations/use-paged-file";
import { useDestinationNames, useKnownDestinations } from "../../destinations/known-destinations";
import { EmailFields } from "./email-fields";
import { LineChoices } from "./line-choices";
import { LineRow } from "./line-row";
import { readTyped, type Choice, type ShelfPlace, type Spot } from "@vennet/core/destination/read-typed";
import { useShelfPlaces } from "./use-shelf-places";
import { useDraft } from "./line-drafts";
import { usePageTitle } from "./use-page-title";
import { useSpots, type WrittenHere } from "./use-spots";

const none: readonly KnownDestination[] = [];

/** What the link line gives when it is taken. */
export interface TakenLine {
  destination: Destination;
  words: string;
  description: string | null;
}

/**
 * The one field in which a destination is given, at the words that it is for, with the words and the
 * description beside it. Enter takes it, Esc leaves all as it was; what was filled in when it is left otherwise is offered again.
 */
export function LinkLine({
  bookId,
  nearby = none,
  destination,
  words: firstWords,
  description: firstDescription,
  wordsLabel,
  here = null,
  onTake,
  onSpot,
  onMakePage,
  onBringFile,
  onShelf,
  onLeave,
}: {
  bookId: string;
  /** Places of the chapter that is being written, as it stands at this moment. */
  nearby?: readonly KnownDestination[];
  destination: Destination | null;
  words: string;
  description: string | null;
  /** What the first field is: the words, or a picture's text alternative; null where it cannot be changed. */
  wordsLabel: string | null;
  /** The chapter whose words are linked, where words within the text can be led to. */
  here?: WrittenHere | null;
  onTake: (line: TakenLine) => void;
  /** Sees to it that a place stands at words of the text, and gives where a link to it leads. */
  onSpot?: (spot: Spot) => Promise<Destination>;
  /** Makes a companion page, and gives where a link to it leads; left out where there can be none. */
  onMakePage?: (title: string) => Promise<Destination>;
  /** Brings a file in, and gives where a link to it leads; left out where none can travel with the publication. */
  onBringFile?: (file: File) => Promise<Destination>;
  /** Takes the file of another publication along, and gives where a link to its place leads; left out where none can travel. */
  onShelf?: (place: ShelfPlace) => Promise<Destination>;
  onLeave: () => void;
}) {
  const names = useDestinationNames(bookId);
  const elsewhere = useKnownDestinations(bookId);
  const known = useMemo(() => [...nearby, ...elsewhere], [nearby, elsewhere]);
  const needsWords = firstWords === "" && wordsLabel === "Words";
  const [typed, setTyped] = useState(() => (destination ? shownAtFirst(destination, names) : ""));
  const [isTouched, setTouched] = useState(false);
  const [words, setWords] = useState(firstWords);
  const [description, setDescription] = useState(firstDescription ?? "");
  const [message, setMessage] = useState<MailMessage | null>(() =>
    destination?.kind === "email" ? readMailto(destination.address) : null,
  );
  /** The choice that the arrow keys went to; null while it is the first that fits by itself. */
  const [picked, setPicked] = useState<number | null>(null);
  const [asked, setAsked] = useState(false);
  const [busy, setBusy] = useState<string | null>(null);
  const [failure, setFailure] = useState<string | null>(null);
  /** The place of a file that was pointed at; what is typed puts it aside. */
  const [pointed, setPointed] = useState<Destination | null>(null);
  const [isPointing, setPointing] = useState(false);
  /** Whether Enter was pressed before all chapters were looked through. */
  const [isAwaiting, setAwaiting] = useState(false);
  // The line itself, with its two blue rules, shows where the focus is.
  const box = useRef<HTMLFormElement>(null);
  const picker = useRef<HTMLInputElement>(null);
  // A file dialog takes the focus away; that is no leaving.
  const isPicking = useRef(false);
  const id = useId();
  useEffect(() => {
    box.current?.scrollIntoView({ block: "nearest" });
  }, []);

  const isAsItWas = destination !== null && !isTouched;
  const { spots, searching } = useSpots(bookId, isAsItWas ? "" : typed, here);
  const shelf = useShelfPlaces(bookId, typed, onShelf !== undefined && !isAsItWas);
  const linked = wordsLabel === "Words" && !isTouched ? words : "";
  const reading = useMemo(
    () => readTyped(typed, { known, spots, shelf, words: linked }),
    [typed, known, spots, shelf, linked],
  );
  const choices =
    isAsItWas || pointed
      ? []
      : reading.choices.filter(
          ({ kind }) => (kind !== "page" || onMakePage) && (kind !== "upload" || onBringFile),
        );
  const at = picked === null ? (isAsItWas ? -1 : reading.fitting) : Math.min(picked, choices.length - 1);
  const choice = choices[at] ?? null;
  const chosen = pointed ?? (isAsItWas ? destination : destinationOf(choice));
  const paged = usePagedFile(bookId, chosen);
  const mended = choice?.kind === "recognised" ? choice.recognised.mended : [];
  const tracking = chosen?.kind === "web" ? withoutTracking(chosen.address) : null;
  const hasRawWords = wordsLabel === "Words" && isPlainlyAnAddress(words);
  const { asking, title } = usePageTitle(
    bookId,
    hasRawWords && chosen?.kind === "web" ? chosen.address : null,
  );
  const wordsMissing = needsWords && words.trim() === "";
  const mail = chosen?.kind === "email" ? mailOf(chosen.address, message) : null;

  const isChanged =
    (isTouched && typed.trim() !== "") || words !== firstWords || description !== (firstDescription ?? "");
  const draft = useDraft(
    `${bookId} ${destination ? writeDestination(destination) : ""} ${firstWords}`,
    isChanged ? { typed, words, description } : null,
  );
  const cancel = (): void => {
    draft.drop();
    onLeave();
  };
  const goOn = (): void => {
    const begun = draft.take();
    if (!begun) return;
    type(begun.typed);
    setWords(begun.words);
    setDescription(begun.description);
  };
  const type = (next: string): void => {
    setTyped(next);
    setTouched(true);
    setPicked(null);
    setPointed(null);
    setFailure(null);
    setAwaiting(false);
  };
  const give = (to: Destination): void => {
    draft.drop();
    onTake({ destination: to, words: words.trim(), description: description.trim() || null });
  };
  const work = async (what: string, make: () => Promise<Destination>): Promise<void> => {
    setBusy(what);
    setFailure(null);
    try {
      give(await make());
    } catch (error) {
      setBusy(null);
      setFailure((error as Error).message);
    }
  };
  const take = (what: Choice | null = choice): void => {
    setAsked(true);
    if (busy !== null || wordsMissing) return;
    if (pointed) return give(pointed);
    // What was typed may stand in a chapter that is being looked through.
    setAwaiting(what === null && searching);
    if (what === null && searching) return;
    if (isAsItWas && what === null) give(mail ? { kind: "email", address: writeMailto(mail) } : destination);
    else if (what?.kind === "spot") void work("Placing the anchor", () => onSpot!(what.spot));
    else if (what?.kind === "shelf") void work("Taking its file along", () => onShelf!(what.place));
    else if (what?.kind === "page") void work("Making the page", () => onMakePage!(what.title));
    else if (what?.kind === "upload") {
      isPicking.current = true;
      picker.current?.click();
    } else if (what?.kind === "recognised" && mail) give({ kind: "email", address: writeMailto(mail) });
    else if (what) give(destinationOf(what)!);
  };
  const latestTake = useRef(take);
  latestTake.current = take;
  useEffect(() => {
    if (isAwaiting && !searching) latestTake.current();
  }, [isAwaiting, searching]);
  const bring = (file: File): void => {
    if (onBringFile) void work(`Bringing in ${file.name}`, () => onBringFile(file));
    else setFailure("No file travels with this publication. Link its address on the web.");
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    const inLine = (event.target as HTMLElement).id === `${id}-to`;
    const target = event.target as HTMLElement;
    if (event.key === "Escape") cancel();
    else if (
      event.key === "Enter" &&
      target.tagName !== "BUTTON" &&
      target.tagName !== "A" &&
      !(target.tagName === "TEXTAREA" && !event.ctrlKey)
    )
      take();
    else if (inLine && event.key === "ArrowDown" && choices.length > 0) setPicked((at + 1) % choices.length);
    else if (inLine && event.key === "ArrowUp" && choices.length > 0)
      setPicked((Math.max(at, 0) + choices.length - 1) % choices.length);
    else return;
    event.preventDefault();
  };
  const form = (
    <form
      ref={box}
      aria-label="Link line"
      onSubmit={(event) => event.preventDefault()}
      onKeyDown={onKeyDown}
      onFocus={() => (isPicking.current = false)}
      onBlur={(event) => {
        const isOutside = !box.current?.contains(event.relatedTarget);
        if (isOutside && !isPointing && !isPicking.current && busy === null && document.hasFocus()) onLeave();
      }}
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        const file = event.dataTransfer.files[0];
        if (file) bring(file);
      }}
      className="border-y-2 border-blue bg-paper py-2 font-sans text-[0.95rem] shadow-[0_6px_12px_-8px_var(--ink)]"
    >
      {wordsLabel && (
        <LineRow label={wordsLabel} serif autoFocus={needsWords} value={words} onChange={setWords} />
      )}
      <div className="mt-1 flex items-baseline gap-3 pr-3">
        <label htmlFor={`${id}-to`} className="w-20 shrink-0 text-right text-sm text-faint">
          Leads to
        </label>
        <input
          id={`${id}-to`}
          role="combobox"
          aria-expanded={choices.length > 0}
          aria-controls={`${id}-choices`}
          aria-activedescendant={choice ? `${id}-choice-${choices.indexOf(choice)}` : undefined}
          aria-autocomplete="list"
          autoFocus={!needsWords}
          onFocus={(event) => event.target.select()}
          value={typed}
          onChange={(event) => type(event.target.value)}
          spellCheck={false}
          autoComplete="off"
          placeholder="Paste an address, or type a name or words of the text"
          aria-describedby={`${id}-says`}
          aria-invalid={asked && !chosen && choice === null ? true : undefined}
          className="w-full min-w-0 border-b border-hairline bg-transparent font-mono outline-none placeholder:font-sans placeholder:text-faint focus:border-blue"
        />
      </div>
      <LineChoices id={id} choices={choices} picked={choice} names={names} onTake={take} />
      <div id={`${id}-says`} className="flex flex-wrap gap-x-4 pr-3 pl-[5.75rem] text-sm" role="status">
        {mended.length > 0 && <span>Mended: {mended.join("; ")}</span>}
        {choice === null && !isAsItWas && !pointed && !searching && (
          <span className={asked ? "text-red" : "text-faint"}>{reading.problem}</span>
        )}
        {choice !== null && reading.problem !== "" && choice.kind === "upload" && (
          <span>{reading.problem}</span>
        )}
        {wordsMissing && asked && <span className="text-red">The link needs words to stand on.</span>}
        {busy && <span>{busy} …</span>}
        {searching && !pointed && choice === null && <span>Looking through the chapters …</span>}
        {failure && <span className="text-red">{failure}</span>}
      </div>
      {draft.offered && !isChanged && (
        <Offer onTake={goOn} action="Use it">
          You had begun: {draft.offered.typed || draft.offered.description || draft.offered.words}
        </Offer>
      )}
      {paged && (
        <Offer onTake={() => setPointing(true)} action="Point at the place">
          {pointed ? `Leads to ${nameDestination(pointed, names)}.` : "A link can lead into this file."}
        </Offer>
      )}
      {tracking && (
        <Offer onTake={() => type(tracking.address)} action="Remove">
          The address tells where readers come from: {tracking.removed.join(", ")}.
        </Offer>
      )}
      {hasRawWords && asking && (
        <p className="pl-[5.75rem] text-sm text-faint">Asking the page for its title …</p>
      )}
      {hasRawWords && title && (
        <Offer onTake={() => setWords(title)} action="Use as words">
          The page is called “{title}”.
        </Offer>
      )}
      <LineRow label="Description" value={description} onChange={setDescription} />
      {mail && <EmailFields key={mail.to.join()} message={mail} onChange={setMessage} />}
      <div className="mt-1.5 flex items-center gap-3 pr-3 pl-[5.75rem] text-sm">
        <Button
          kind="main"
          className="!text-sm whitespace-nowrap"
          disabled={busy !== null}
          onClick={() => take()}
        >
          {choice?.kind === "page"
            ? "Make page and link"
            : choice?.kind === "upload"
              ? "Bring a file in"
              : destination
                ? "Change link"
                : "Link"}
        </Button>
        <Button kind="quiet" className="!text-sm" onClick={cancel}>
          Cancel
        </Button>
        {onBringFile && <span className="ml-auto text-faint max-md:hidden">A file can be dropped here</span>}
      </div>
      <input
        ref={picker}
        type="file"
        hidden
        aria-label="File to bring in"
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) bring(file);
          event.target.value = "";
        }}
      />
    </form>
  );
  return (
    <>
      {form}
      {isPointing && paged && (
        <PointInFile
          {...paged}
          onPoint={(at) => {
            setPointed({ kind: "file", file: paged.file, at });
            setPointing(false);
          }}
          onClose={() => setPointing(false)}
        />
      )}
    </>
  );
}

function Offer({
  children,
  action,
  onTake,
}: {
  children: React.ReactNode;
  action: string;
  onTake: () => void;
}) {
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 pr-3 pl-[5.75rem] text-sm">
      <span className="min-w-0 [overflow-wrap:anywhere]">{children}</span>
      <Button kind="quiet" className="!text-sm" onClick={onTake}>
        {action}
      </Button>
    </p>
  );
}

function destinationOf(choice: Choice | null): Destination | null {
  if (choice?.kind === "recognised") return choice.recognised.destination;
  return choice?.kind === "known" ? choice.known.destination : null;
}

/** The message of an address, with what the author put into the fields for the same recipients. */
function mailOf(address: string, edited: MailMessage | null): MailMessage {
  const read = readMailto(address);
  const isBare = read.subject === "" && read.body === "" && read.cc.length + read.bcc.length === 0;
  return edited && (isBare || edited.to.join() === read.to.join()) ? { ...edited, to: read.to } : read;
}

function shownAtFirst(destination: Destination, names: Parameters<typeof nameDestination>[1]): string {
  return destination.kind === "email"
    ? readMailto(destination.address).to.join(", ")
    : nameDestination(destination, names);
}
