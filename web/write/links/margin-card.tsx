import { shortDestination, writeDestination, type Destination } from "@vennet/core/destination/destination";
import { recognise } from "@vennet/core/destination/recognise";
import type { LinkUse } from "@vennet/core/manuscript/links";
import { useState, type FormEvent } from "react";
import type { LinkState } from "../../api/client";
import { Button } from "../../parts/button";
import { Field } from "../../parts/field";
import { StateMark } from "../../parts/state-mark";
import { FollowPanel } from "./follow-panel";
import { KindMark } from "./kind-mark";

export interface CardActions {
  select: (use: LinkUse) => void;
  changeWords: (use: LinkUse, words: string) => void;
  changeDestination: (use: LinkUse, destination: Destination) => void;
  remove: (use: LinkUse) => void;
  leave: () => void;
  follow: (use: LinkUse | null) => void;
}

export interface CardState {
  state: LinkState;
  reason: string;
  movedTo: string | null;
}

/** What the margin says of one link: where it leads and how it is; when it is active, how to change it. */
export function MarginCard({
  use,
  known,
  active,
  following,
  actions,
}: {
  use: LinkUse;
  known: CardState;
  active: boolean;
  following: boolean;
  actions: CardActions;
}) {
  const { destination } = use;
  const address = writeDestination(destination);
  return (
    <div
      className={`bg-paper text-[0.83rem] leading-snug ${active ? "border-l-2 border-blue pl-2.5" : "pl-3"}`}
    >
      <button
        type="button"
        aria-expanded={active}
        aria-label={`Link “${use.text}” to ${address}`}
        onClick={() => actions.select(use)}
        className="block w-full text-left"
      >
        <span className="flex items-baseline justify-between gap-2 text-faint">
          <KindMark kind={destination.kind} />
          {destination.kind === "web" && <StateMark state={known.state} />}
        </span>
        <span className="block truncate font-semibold">{shortDestination(destination)}</span>
        {!active && destination.kind === "web" && (
          <span className="block truncate font-mono text-[0.76rem] text-faint">{pathOf(address)}</span>
        )}
      </button>
      {active && (
        <>
          <p
            tabIndex={0}
            className="mt-0.5 max-h-28 overflow-y-auto font-mono text-[0.78rem] [overflow-wrap:anywhere]"
          >
            {address}
          </p>
          {destination.kind === "web" && <p className="mt-1">{known.reason}</p>}
          {following ? (
            <FollowPanel use={use} onDone={() => actions.follow(null)} />
          ) : (
            <CardForm key={`${use.id} ${address} ${use.text}`} use={use} actions={actions} />
          )}
        </>
      )}
    </div>
  );
}

function CardForm({ use, actions }: { use: LinkUse; actions: CardActions }) {
  const address = writeDestination(use.destination);
  const [problem, setProblem] = useState<string | null>(null);
  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const words = String(data.get("words")).trim();
    const typed = String(data.get("address"));
    try {
      if (typed !== address) actions.changeDestination(use, recognise(typed).destination);
      else if (words !== "" && words !== use.text) actions.changeWords(use, words);
      actions.leave();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <form
      onSubmit={submit}
      onKeyDown={(event) => {
        if (event.key !== "Escape") return;
        event.preventDefault();
        actions.leave();
      }}
      className="mt-1.5 grid gap-1 [&_button]:text-[0.83rem]"
    >
      <Field name="words" label="Words" defaultValue={use.text} />
      <Field name="address" label="Leads to" defaultValue={address} problem={problem} spellCheck={false} />
      <div className="flex flex-wrap gap-x-3">
        <Button kind="quiet" type="submit" className="-ml-1">
          Take
        </Button>
        <Button kind="quiet" onClick={() => actions.follow(use)}>
          Follow
        </Button>
        <Button kind="quiet" onClick={() => actions.remove(use)}>
          Remove link
        </Button>
      </div>
    </form>
  );
}

function pathOf(address: string): string {
  const url = new URL(address);
  return url.pathname + url.search + url.hash;
}
