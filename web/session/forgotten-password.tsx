import { answerOf, api } from "../api/client";
import { Told } from "../account/told";
import { useSending } from "../account/use-sending";
import { useStandIns } from "../api/stand-ins";
import { Button } from "../parts/button";
import { Field } from "../parts/field";

/** Asks for a link by which a forgotten password is replaced. */
export function ForgottenPassword({ onLeave }: { onLeave: () => void }) {
  const { busy, done, error, problemOf, send } = useSending();
  const letters = useStandIns()?.web("https://mail.hesterley.example/letters");
  return (
    <form
      noValidate
      className="flex flex-col gap-4 p-8"
      onSubmit={(event) => {
        event.preventDefault();
        const email = String(new FormData(event.currentTarget).get("email"));
        void send(async () => {
          await answerOf(api.POST("/api/password-links", { body: { email } }));
          return `If ${email} has an account here, a link for a new password is on its way there. It holds for an hour.`;
        });
      }}
    >
      <h2 className="font-serif text-xl">Forgotten password</h2>
      <Field
        name="email"
        type="email"
        label="Email address"
        autoComplete="email"
        autoFocus
        problem={problemOf("email")}
      />
      <Told done={done} error={error} fields={["email"]} />
      {done && letters && (
        <a href={letters} target="_blank" rel="noreferrer" className="text-sm underline underline-offset-4">
          Letters of the stand-in mail (opens in a new window)
        </a>
      )}
      <Button kind="main" type="submit" disabled={busy} className="justify-center">
        Send a link
      </Button>
      <Button kind="quiet" className="self-start" onClick={onLeave}>
        Back to sign in
      </Button>
    </form>
  );
}
