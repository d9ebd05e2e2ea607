import { Check, CircleMinus, CirclePlus, PencilLine, TriangleAlert, type LucideIcon } from "lucide-react";
import type { ReactNode } from "react";
import type { Arrival as ArrivalAnswer } from "../api/client";
import { plural } from "../parts/wording";

type Group = ArrivalAnswer["groups"][number];
type Verdict = Group["verdict"];

const verdicts: Record<Verdict, { icon: LucideIcon; word: string }> = {
  intact: { icon: Check, word: "intact" },
  changed: { icon: PencilLine, word: "changed" },
  "left-out": { icon: CircleMinus, word: "left out" },
  lost: { icon: TriangleAlert, word: "lost" },
  extra: { icon: CirclePlus, word: "extra" },
};
const order: Verdict[] = ["intact", "changed", "left-out", "lost", "extra"];

/** An arrival proof: its counts first, then what is not as it was, like things together. */
export function Arrival({
  arrival,
  mendOf,
}: {
  arrival: ArrivalAnswer;
  /** What can be done about links of a sort, beside their list. */
  mendOf?: (group: Group) => ReactNode;
}) {
  const { counts, groups, told } = arrival;
  return (
    <div className="grid gap-4">
      {counts ? (
        <Counts counts={counts} />
      ) : (
        <p className="flex items-start gap-2 font-semibold text-red">
          <TriangleAlert aria-hidden size={17} className="mt-0.5 shrink-0" />
          The second reader could not read this file, so nothing says whether all its links came.
        </p>
      )}
      {groups.length > 0 && (
        <section aria-label="Links that are not as they were" className="border-y border-hairline">
          {groups.map((group) => (
            <Sort
              key={`${group.verdict} ${group.sort}`}
              icon={verdicts[group.verdict].icon}
              isGrave={group.verdict === "lost"}
              count={group.count}
              sort={group.sort}
              about={verdicts[group.verdict].word}
              isOpen={group.verdict === "lost" || (mendOf !== undefined && group.mend !== null)}
            >
              {mendOf?.(group)}
              <LinkList group={group} />
            </Sort>
          ))}
        </section>
      )}
      {told.length > 0 && (
        <section aria-label="What else could not be taken over as it was">
          <h3 className="text-sm text-faint">Apart from links</h3>
          <div className="mt-1 border-y border-hairline">
            {told.map(({ sort, count, items }) => (
              <Sort key={sort} icon={CircleMinus} count={count} sort={sort} about="" isOpen={false}>
                <Shown count={count} shown={items.length} what={sort}>
                  {items.map(({ where, what, why }, i) => (
                    <li
                      key={i}
                      className="grid gap-x-4 border-t border-hairline py-1 sm:grid-cols-[7rem_1fr]"
                    >
                      <span className="text-faint tabular-nums [overflow-wrap:anywhere]">{where ?? "–"}</span>
                      <span className="[overflow-wrap:anywhere]">
                        {what} <span className="text-faint">{why}</span>
                      </span>
                    </li>
                  ))}
                </Shown>
              </Sort>
            ))}
          </div>
        </section>
      )}
    </div>
  );
}

function Counts({ counts }: { counts: NonNullable<ArrivalAnswer["counts"]> }) {
  const total = counts.intact + counts.changed + counts["left-out"] + counts.lost;
  if (total + counts.extra === 0) return <p>The file has no links.</p>;
  return (
    <div>
      <p>
        A second reader went through the file and found {plural(total, "link")} in it. Compared with the book:
      </p>
      <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-2">
        {order
          .filter((verdict) => verdict === "intact" || verdict === "lost" || counts[verdict] > 0)
          .map((verdict) => {
            const { icon: Icon, word } = verdicts[verdict];
            const isGrave = verdict === "lost" && counts.lost > 0;
            return (
              <div key={verdict} className={`flex flex-col-reverse ${isGrave ? "text-red" : ""}`}>
                <dt className="flex items-center gap-1 text-sm">
                  <Icon aria-hidden size={14} strokeWidth={2.2} /> {word}
                </dt>
                <dd className="font-serif text-2xl leading-tight tabular-nums">
                  {counts[verdict].toLocaleString("en")}
                </dd>
              </div>
            );
          })}
      </dl>
    </div>
  );
}

/** All things of a sort, folded until they are wanted. */
function Sort({
  icon: Icon,
  isGrave = false,
  count,
  sort,
  about,
  isOpen,
  children,
}: {
  icon: LucideIcon;
  isGrave?: boolean;
  count: number;
  sort: string;
  about: string;
  isOpen: boolean;
  children: ReactNode;
}) {
  return (
    <details open={isOpen} className="group border-t border-hairline first:border-t-0">
      <summary
        className={`flex min-h-9 cursor-pointer items-center gap-2 py-1 hover:bg-blue-wash ${isGrave ? "font-semibold text-red" : ""}`}
      >
        <Icon aria-hidden size={15} strokeWidth={2.2} className="shrink-0" />
        <span className="w-12 shrink-0 text-right tabular-nums">{count.toLocaleString("en")}</span>
        <span className="grow">{sort}</span>
        {about && <span className="text-sm text-faint">{about}</span>}
        <span aria-hidden className="w-4 shrink-0 text-center font-mono text-faint group-open:rotate-90">
          ›
        </span>
      </summary>
      <div className="pb-3 pl-6 text-sm sm:pl-[5.4rem]">{children}</div>
    </details>
  );
}

function LinkList({ group }: { group: Group }) {
  const [first] = group.links;
  const isOneReason = group.links.every(({ reason }) => reason === first?.reason);
  return (
    <>
      {isOneReason && <p className="mb-2">{first?.reason}</p>}
      <Shown count={group.count} shown={group.links.length} what={group.sort}>
        {group.links.map(({ words, href, where, reason }, i) => (
          <li key={i} className="grid gap-x-4 border-t border-hairline py-1 sm:grid-cols-[7rem_1fr_1fr]">
            <span className="text-faint tabular-nums [overflow-wrap:anywhere]">{where ?? "–"}</span>
            <span className="font-serif [overflow-wrap:anywhere]">{words || "(no words)"}</span>
            <span className="font-mono text-[0.85em] [overflow-wrap:anywhere]">
              {href}
              {!isOneReason && <span className="block font-sans text-faint">{reason}</span>}
            </span>
          </li>
        ))}
      </Shown>
    </>
  );
}

function Shown({
  count,
  shown,
  what,
  children,
}: {
  count: number;
  shown: number;
  what: string;
  children: ReactNode;
}) {
  return (
    <>
      <ul
        aria-label={what}
        tabIndex={shown > 6 ? 0 : undefined}
        className="max-h-64 overflow-y-auto border-b border-hairline"
      >
        {children}
      </ul>
      {count > shown && (
        <p className="mt-1 text-faint">The first {shown.toLocaleString("en")}. The table has all of them.</p>
      )}
    </>
  );
}
