import { Bar, BarChart, CartesianGrid, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import type { LinkState, ReachRun } from "../api/client";
import { StateMark } from "../parts/state-mark";
import { shownDate } from "../parts/wording";

const runTime = new Intl.DateTimeFormat("en", {
  month: "short",
  day: "numeric",
  hour: "numeric",
  minute: "2-digit",
});

/** From the foot of a bar up: what is wrong is at the foot, where runs are best compared. */
const order: LinkState[] = ["broken", "unsure", "moved", "guarded", "unchecked", "sound"];

/** A bar for each run, divided by the states of all destinations at its end. */
export function HealthChart({ runs }: { runs: ReachRun[] }) {
  const data = runs.map(({ id, endedAt, counts }) => ({ id, endedAt, ...counts }));
  return (
    <figure aria-label={`States of the destinations over ${runs.length} runs`} className="h-64">
      <Patterns />
      <ResponsiveContainer width="100%" height="100%">
        <BarChart data={data} margin={{ top: 8, right: 8, bottom: 0, left: -18 }} maxBarSize={46}>
          <CartesianGrid vertical={false} stroke="var(--hairline)" />
          <XAxis
            dataKey="endedAt"
            tickFormatter={(at: string) => runTime.format(new Date(at))}
            tick={{ fill: "var(--faint)", fontSize: 12 }}
            stroke="var(--edge)"
            minTickGap={20}
          />
          <YAxis allowDecimals={false} tick={{ fill: "var(--faint)", fontSize: 12 }} stroke="var(--edge)" />
          <Tooltip
            cursor={{ fill: "var(--blue-wash)" }}
            content={({ active, payload }) => {
              const run = active ? (payload?.[0]?.payload as (typeof data)[number] | undefined) : undefined;
              return run ? <RunNote run={run} /> : null;
            }}
          />
          {order.map((state) => (
            <Bar
              key={state}
              dataKey={state}
              stackId="states"
              fill={`url(#health-${state})`}
              stroke="var(--edge)"
              strokeWidth={0.5}
              isAnimationActive={false}
            />
          ))}
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

function RunNote({ run }: { run: { endedAt: string } & Record<LinkState, number> }) {
  return (
    <div className="border border-edge bg-paper px-3 py-2 text-sm text-ink">
      <p className="text-faint">{shownDate(run.endedAt)}</p>
      {[...order].reverse().map(
        (state) =>
          run[state] > 0 && (
            <p key={state}>
              <StateMark state={state} count={run[state]} />
            </p>
          ),
      )}
    </div>
  );
}

/** Each state has a hatching of its own, as engravers tell surfaces apart, so that no state is told by colour alone. */
function Patterns() {
  return (
    <svg aria-hidden width="0" height="0" className="absolute">
      <defs>
        <Hatching state="sound" ground="var(--paper)" />
        <Hatching state="unchecked" ground="var(--paper)" path="M1.5 1.5h1" ink="var(--edge)" />
        <Hatching state="guarded" ground="var(--desk)" path="M0 3h6" ink="var(--edge)" />
        <Hatching state="moved" ground="var(--blue-wash)" path="M0 6L6 0" ink="var(--blue)" />
        <Hatching state="unsure" ground="var(--red-wash)" path="M0 0L6 6" ink="var(--red)" />
        <Hatching state="broken" ground="var(--red)" />
      </defs>
    </svg>
  );
}

function Hatching({
  state,
  ground,
  path,
  ink,
}: {
  state: LinkState;
  ground: string;
  path?: string;
  ink?: string;
}) {
  return (
    <pattern id={`health-${state}`} width="6" height="6" patternUnits="userSpaceOnUse">
      <rect width="6" height="6" fill={ground} />
      {path && <path d={path} stroke={ink} strokeWidth="1.2" />}
    </pattern>
  );
}
