import { nameDestination } from "@vennet/core/destination/destination";
import type { DestinationNames } from "@vennet/core/destination/kinds/kind";
import { sameLook } from "@vennet/core/manuscript/looks";
import type { LinkDifference, LinkState } from "@vennet/core/manuscript/versions";
import { Minus, PencilLine, Plus } from "lucide-react";
import { plural } from "../../parts/wording";

/** What can become of a link from one version to another: a shape and its word. */
export const differenceKinds = {
  added: { icon: Plus, word: "Added" },
  removed: { icon: Minus, word: "Removed" },
  changed: { icon: PencilLine, word: "Changed" },
};

/** The links that two versions do not share. */
export function LinkDifferences({
  differences,
  names,
}: {
  differences: LinkDifference[];
  names: DestinationNames;
}) {
  return (
    <section aria-label="Links" className="bg-paper p-5 shadow-[0_0_0_1px_var(--hairline)]">
      <h2 className="font-serif text-lg">
        {differences.length === 0
          ? "No link differs"
          : plural(differences.length, "link differs", "links differ")}
      </h2>
      <ul className="mt-1">
        {differences.map((difference) => {
          const { icon: Icon, word } = differenceKinds[difference.kind];
          const state = difference.kind === "removed" ? difference.before : difference.after;
          return (
            <li
              key={`${difference.kind} ${state.id}`}
              className="grid grid-cols-[6.5rem_minmax(0,1fr)] gap-2 border-t border-hairline py-1.5"
            >
              <span className="inline-flex items-center gap-1 self-start">
                <Icon aria-hidden size={14} /> {word}
              </span>
              <span className="min-w-0">
                {difference.kind === "changed" ? (
                  <>
                    <Change before={difference.before.text} after={difference.after.text} serif />
                    <Change before={place(difference.before, names)} after={place(difference.after, names)} />
                    {difference.before.description !== difference.after.description && (
                      <Change
                        before={difference.before.description ?? "no description"}
                        after={difference.after.description ?? "no description"}
                        serif
                      />
                    )}
                    {difference.before.look !== undefined &&
                      !sameLook(difference.before.look, difference.after.look ?? null) && (
                        <Change before={lookWords(difference.before)} after={lookWords(difference.after)} />
                      )}
                  </>
                ) : (
                  <>
                    <span className="font-serif">{state.text}</span>
                    <span className="block font-mono text-[0.82rem] [overflow-wrap:anywhere] text-faint">
                      {place(state, names)}
                    </span>
                  </>
                )}
              </span>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

function place({ destination }: LinkState, names: DestinationNames): string {
  return nameDestination(destination, names);
}

function lookWords({ look }: LinkState): string {
  return look
    ? `${look.colour}, ${look.underline === "none" ? "no" : look.underline} underline${look.bold ? ", bold" : ""}`
    : "look of its kind";
}

/** Something that was one way before and is another way now. */
export function Change({ before, after, serif = false }: { before: string; after: string; serif?: boolean }) {
  return (
    <span className={`block [overflow-wrap:anywhere] ${serif ? "font-serif" : "font-mono text-[0.82rem]"}`}>
      {before === after ? (
        <span className={serif ? "" : "text-faint"}>{after}</span>
      ) : (
        <>
          <del className="text-red">{before}</del> <span aria-hidden>→</span>{" "}
          <ins className="text-blue no-underline">{after}</ins>
        </>
      )}
    </span>
  );
}
