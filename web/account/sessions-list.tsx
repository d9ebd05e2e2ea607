import { useQuery, useQueryClient } from "@tanstack/react-query";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { Button } from "../parts/button";
import { Waiting } from "../parts/notice";
import { shownDate } from "../parts/wording";
import { deviceName } from "./device-name";
import { Told } from "./told";
import { useSending } from "./use-sending";
import { NotRead } from "../parts/not-read";

/** Where the account is signed in; each place can be signed out from here, and all others at once. */
export function SessionsList() {
  const queries = useQueryClient();
  const sessions = useQuery({
    queryKey: keys.sessions,
    queryFn: () => answerOf(api.GET("/api/account/sessions")),
  });
  const { busy, done, error, send } = useSending();
  const end = (call: () => Promise<unknown>, told: string): void =>
    void send(async () => {
      await call();
      await queries.invalidateQueries({ queryKey: keys.sessions });
      return told;
    });
  if (!sessions.data)
    return sessions.error ? <NotRead of={sessions} /> : <Waiting what="Looking where you are signed in" />;
  return (
    <div className="flex flex-col gap-3">
      <ul className="border-t border-hairline">
        {sessions.data.map(({ id, device, createdAt, lastSeenAt, isThis }) => (
          <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-hairline py-2">
            <span className="min-w-0 grow [overflow-wrap:anywhere]" title={device}>
              {deviceName(device)}
              {isThis && <strong> (here)</strong>}
              <span className="block text-sm text-faint">
                Since {shownDate(createdAt)}, seen {shownDate(lastSeenAt)}
              </span>
            </span>
            {!isThis && (
              <Button
                disabled={busy}
                aria-label={`Sign out ${deviceName(device)}, since ${shownDate(createdAt)}`}
                onClick={() =>
                  end(
                    () =>
                      answerOf(
                        api.DELETE("/api/account/sessions/{sessionId}", {
                          params: { path: { sessionId: id } },
                        }),
                      ),
                    `${deviceName(device)} is signed out.`,
                  )
                }
              >
                Sign out
              </Button>
            )}
          </li>
        ))}
      </ul>
      <Told done={done} error={error} />
      {sessions.data.length > 1 && (
        <Button
          className="self-start"
          disabled={busy}
          onClick={() =>
            end(() => answerOf(api.DELETE("/api/account/sessions")), "You are signed in here alone now.")
          }
        >
          Sign out everywhere else
        </Button>
      )}
    </div>
  );
}
