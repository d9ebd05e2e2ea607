import { useEffect, useState } from "react";
import { Link } from "react-router";
import { answerOf, api } from "../api/client";
import { Told } from "../account/told";
import { useSending } from "../account/use-sending";
import { Button } from "../parts/button";
import { EntryFrame } from "./entry-frame";

/** Where the link of a mail leads by which an author confirms a new address. */
export function ConfirmEmailPage() {
  const [token] = useState(() => location.hash.slice(1));
  const { busy, done, error, send } = useSending();
  useEffect(() => {
    document.title = "New email address – Vennet";
    history.replaceState(null, "", location.pathname);
  }, []);
  return (
    <EntryFrame title="New email address">
      {!done && token !== "" && (
        <Button
          kind="main"
          disabled={busy}
          className="self-start"
          // A press, since programs that look into mails open their links too.
          onClick={() =>
            void send(async () => {
              const { email } = await answerOf(api.POST("/api/email-links/use", { body: { token } }));
              return `From now on you sign in as ${email}.`;
            })
          }
        >
          Confirm the address
        </Button>
      )}
      {token === "" && <p>This address is not whole. Open the link of the mail once more.</p>}
      <Told done={done} error={error} />
      <Link to="/" className="underline underline-offset-4">
        To the Shelf
      </Link>
    </EntryFrame>
  );
}
