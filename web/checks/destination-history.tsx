import { useQuery } from "@tanstack/react-query";
import { answerOf, api, type CheckedDestination } from "../api/client";
import { keys } from "../api/keys";
import { StateMark } from "../parts/state-mark";
import { shownDate } from "../parts/wording";
import { NotRead } from "../parts/not-read";

/** What one destination has answered over time, the newest first. */
export function DestinationHistory({
  bookId,
  destination,
}: {
  bookId: string;
  destination: CheckedDestination;
}) {
  const { address, lastSoundAt, state } = destination;
  const history = useQuery({
    queryKey: keys.history(bookId, address),
    queryFn: () =>
      answerOf(
        api.GET("/api/books/{bookId}/destinations/history", {
          params: { path: { bookId }, query: { address } },
        }),
      ),
    staleTime: 0,
  });
  if (history.error) return <NotRead of={history} />;
  return (
    <section aria-label={`History of ${address}`} className="mt-1 mb-2 border-l-2 border-blue pl-3 text-sm">
      {state !== "sound" && state !== "unchecked" && (
        <p className="font-semibold">
          {lastSoundAt ? `Last sound ${shownDate(lastSoundAt)}` : "Never seen sound"}
        </p>
      )}
      <table>
        <caption className="sr-only">Answers, the newest first</caption>
        <tbody>
          {(history.data ?? []).map(({ checkedAt, state: then, reason }, i) => (
            <tr key={i} className="align-baseline">
              <th
                scope="row"
                className="pr-4 text-left font-normal whitespace-nowrap text-faint tabular-nums"
              >
                {shownDate(checkedAt)}
              </th>
              <td className="pr-4">
                <StateMark state={then} />
              </td>
              <td>{reason}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {history.isPending && <p className="text-faint">Reading …</p>}
    </section>
  );
}
