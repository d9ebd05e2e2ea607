import { answerKey } from "@vennet/core/destination/destination";
import type { Finding } from "@vennet/core/checks/finding";
import { nameDestination, shortDestination } from "@vennet/core/destination/destination";
import type { LinkChange } from "@vennet/core/manuscript/edit-links";
import { recognise } from "@vennet/core/destination/recognise";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { Image, SquareDashedMousePointer, TextSearch } from "lucide-react";
import { useState, type FormEvent } from "react";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { FindingMark } from "../../parts/finding-mark";
import { StateMark } from "../../parts/state-mark";
import { ReferenceCard } from "../references/reference-card";
import type { CardActions, CardContext, CardState } from "./card-context";
import { CardFinding } from "./card-finding";
import { FollowPanel } from "./follow-panel";
import { useDraft } from "./line-drafts";
import { LinkLookChoice } from "./link-look";
import { KindMark } from "../../destinations/kind-mark";

const unchecked: CardState = { state: "unchecked", reason: "Not checked yet.", movedTo: null };

/** What the margin says of one link: where it leads and how it is; when it is active, how to change it. */
export function MarginCard({
  use,
  active,
  folded = false,
  context,
}: {
  use: LinkUse;
  active: boolean;
  /** One line only, where many links are in view. */
  folded?: boolean;
  context: CardContext;
}) {
  const { destination } = use;
  const { names, actions } = context;
  const asked = answerKey(destination);
  const known = asked === null ? null : (context.states.get(asked) ?? unchecked);
  const found = context.findings.get(use.id) ?? [];
  const findings = found.filter(({ rule }) => context.acceptances.reasonFor(use.id, rule) === null);
  const whole = nameDestination(destination, names);
  const short = shortDestination(destination, names);
  const head = (
    <button
      type="button"
      aria-expanded={active}
      aria-label={`Link “${use.text}” to ${whole}${known ? `, ${known.state}` : ""}${findings.length > 0 ? `, ${findings.length} to look at` : ""}`}
      onClick={() => actions.select(use)}
      className="block w-full text-left"
    >
      {folded && !active ? (
        <span className="flex items-baseline gap-2">
          <span className="min-w-0 grow truncate font-semibold">{short}</span>
          {findings.length > 0 && <FindingMark findings={findings} />}
          {known && known.state !== "unchecked" && <StateMark state={known.state} bare />}
        </span>
      ) : (
        <>
          <span className="flex flex-wrap items-baseline justify-between gap-x-2 text-faint">
            <span className="flex items-baseline gap-1.5">
              <KindMark kind={destination.kind} />
              {use.on === "picture" && <Image aria-label="on a picture" size={13} className="self-center" />}
              {use.on === "reference" && (
                <TextSearch aria-label="cross-reference" size={13} className="self-center" />
              )}
              {use.on === "hotspot" && (
                <SquareDashedMousePointer
                  aria-label="on an area of a picture"
                  size={13}
                  className="self-center"
                />
              )}
            </span>
            <span className="ml-auto flex gap-2">
              {findings.length > 0 && <FindingMark findings={findings} />}
              {known && <StateMark state={known.state} />}
            </span>
          </span>
          <span
            // What an opened card says once only is said whole.
            className={`block font-semibold ${active && whole === short ? "[overflow-wrap:anywhere]" : "truncate"}`}
          >
            {short}
          </span>
          {!active && destination.kind === "web" && (
            <span className="block truncate font-mono text-[0.76rem] text-faint">
              {pathOf(destination.address)}
            </span>
          )}
        </>
      )}
    </button>
  );
  return (
    <div
      className={`@container bg-paper text-[0.83rem] leading-snug ${active ? "border-l-2 border-blue pl-2.5" : "pl-3"}`}
    >
      {head}
      {active && (
        <>
          {whole !== short && (
            <p
              tabIndex={0}
              className="mt-0.5 max-h-28 overflow-y-auto font-mono text-[0.78rem] [overflow-wrap:anywhere]"
            >
              {whole}
            </p>
          )}
          {known && <p className="mt-1">{known.reason}</p>}
          {found.map((finding) => (
            <CardFinding
              key={finding.rule}
              finding={finding}
              acceptances={context.acceptances}
              onMend={mendOf(finding, use, actions)}
            />
          ))}
          {context.following === use.id ? (
            <FollowPanel
              bookId={context.bookId}
              destination={destination}
              onGoTo={actions.goTo}
              onDone={() => actions.follow(null)}
            />
          ) : use.on === "reference" ? (
            <ReferenceCard use={use} info={context.referenceOf(use)} actions={actions} />
          ) : (
            <CardForm
              key={`${use.id} ${whole} ${use.text} ${use.description}`}
              use={use}
              whole={whole}
              actions={actions}
            />
          )}
        </>
      )}
    </div>
  );
}

interface CardDraft {
  words: string;
  address: string;
  description: string;
}

function CardForm({ use, whole, actions }: { use: LinkUse; whole: string; actions: CardActions }) {
  const [problem, setProblem] = useState<string | null>(null);
  const typeable = use.destination.kind === "web";
  const kept: CardDraft = { words: use.text, address: whole, description: use.description ?? "" };
  const [filled, setFilled] = useState<CardDraft | null>(null);
  const draft = useDraft(`card ${use.id}`, filled);
  const [from, setFrom] = useState(kept);
  const isBegun = draft.offered !== null;
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const words = String(data.get("words")).trim();
    const typed = String(data.get("address") ?? whole);
    const description = String(data.get("description")).trim() || null;
    const change: LinkChange = {};
    try {
      if (typed !== whole) change.destination = recognise(typed).destination;
      if (words !== "" && words !== use.text) change.text = words;
      if (description !== use.description) change.description = description;
      draft.drop();
      if (Object.keys(change).length > 0) actions.change(use, change);
      actions.leave();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form
      key={JSON.stringify(from)}
      onSubmit={submit}
      onInput={(event) => {
        const data = new FormData(event.currentTarget);
        const text = (name: keyof CardDraft): string => String(data.get(name) ?? kept[name]);
        const now = { words: text("words"), address: text("address"), description: text("description") };
        setFilled(JSON.stringify(now) === JSON.stringify(kept) ? null : now);
      }}
      onKeyDown={(event) => {
        if (
          event.key !== "Escape" &&
          (event.key !== "Enter" || (event.target as HTMLElement).tagName !== "INPUT")
        )
          return;
        event.preventDefault();
        if (event.key === "Escape") {
          draft.drop();
          actions.leave();
        } else event.currentTarget.requestSubmit();
      }}
      className="mt-1.5 grid gap-1 @lg:grid-cols-3 @lg:gap-4 [&_button]:text-[0.83rem]"
    >
      <Field
        name="words"
        label={use.on === "words" ? "Words" : "Text alternative"}
        defaultValue={from.words}
      />
      {typeable && (
        <Field
          name="address"
          label="Leads to"
          defaultValue={from.address}
          problem={problem}
          spellCheck={false}
        />
      )}
      <Field name="description" label="Description" defaultValue={from.description} />
      {isBegun && filled === null && (
        <p className="col-span-full flex flex-wrap items-baseline gap-x-3 text-faint">
          You had begun to change it.
          <Button
            kind="quiet"
            onClick={() => {
              const begun = draft.take()!;
              setFrom(begun);
              setFilled(begun);
            }}
          >
            Use it
          </Button>
        </p>
      )}
      {use.on === "words" && <LinkLookChoice use={use} onChange={(to) => actions.change(use, to)} />}
      {use.on !== "hotspot" && typeable && (
        <label className="col-span-full flex items-center gap-1.5">
          <input
            type="checkbox"
            className="accent-blue"
            checked={use.newWindow}
            onChange={(event) => actions.change(use, { newWindow: event.target.checked })}
          />
          Opens a new window on web pages
        </label>
      )}
      <div className="col-span-full flex flex-wrap gap-x-3">
        <Button kind="quiet" type="submit" className="-ml-1">
          Apply
        </Button>
        {use.on !== "hotspot" && (
          <Button kind="quiet" onClick={() => actions.openLine(use)}>
            Link line
          </Button>
        )}
        <Button kind="quiet" onClick={() => actions.follow(use)}>
          Follow
        </Button>
        <Button kind="quiet" onClick={() => actions.take(use)}>
          Copy link
        </Button>
        {use.on === "words" && (
          <Button kind="quiet" onClick={() => actions.everyMention(use)}>
            Link every mention
          </Button>
        )}
        <Button kind="quiet" onClick={() => actions.remove(use)}>
          Remove link
        </Button>
      </div>
    </form>
  );
}

function mendOf({ mend }: Finding, use: LinkUse, actions: CardActions): (() => void) | null {
  return mend && (() => actions.change(use, mend));
}

function pathOf(address: string): string {
  const url = new URL(address);
  return url.pathname + url.search + url.hash;
}
