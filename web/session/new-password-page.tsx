import { useEffect, useState } from "react";
import { Link } from "react-router";
import { answerOf, api } from "../api/client";
import { Told } from "../account/told";
import { useSending } from "../account/use-sending";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { EntryFrame } from "./entry-frame";

/** Where the link of a mail leads that somebody asked for who had forgotten the password. */
export function NewPasswordPage() {
  // Read once: the secret does not stay in the address.
  const [token] = useState(() => location.hash.slice(1));
  const { busy, done, error, problemOf, send } = useSending();
  useEffect(() => {
    document.title = "New password – Vennet";
    history.replaceState(null, "", location.pathname);
  }, []);
  return (
    <EntryFrame title="New password">
      {!done && token !== "" && (
        <form
          noValidate
          className="flex flex-col gap-4"
          onSubmit={(event) => {
            event.preventDefault();
            const password = String(new FormData(event.currentTarget).get("password"));
            void send(async () => {
              await answerOf(api.POST("/api/password-links/use", { body: { token, password } }));
              return "Your password is changed, and you are signed out everywhere.";
            });
          }}
        >
          <Field
            name="password"
            type="password"
            label="New password"
            autoComplete="new-password"
            hint="At least 10 characters; four words do well."
            problem={problemOf("password")}
          />
          <Button kind="main" type="submit" disabled={busy} className="justify-center">
            Change password
          </Button>
        </form>
      )}
      {token === "" && <p>This address is not whole. Open the link of the mail once more.</p>}
      <Told done={done} error={error} fields={["password"]} />
      <Link to="/sign-in" className="underline underline-offset-4">
        To sign in
      </Link>
    </EntryFrame>
  );
}
