import { useQueryClient } from "@tanstack/react-query";
import type { FormEvent } from "react";
import { answerOf, api, type Account } from "../api/client";
import { keys } from "../api/keys";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Told } from "./told";
import { useSending } from "./use-sending";

/** What was typed into a form's fields, by their names. */
function typedInto(event: FormEvent<HTMLFormElement>): (name: string) => string {
  event.preventDefault();
  const data = new FormData(event.currentTarget);
  return (name) => String(data.get(name) ?? "");
}

/** The name that stands on the author's new books. */
export function OwnName({ account }: { account: Account }) {
  const queries = useQueryClient();
  const { busy, done, error, problemOf, send } = useSending();
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => {
        const typed = typedInto(event);
        void send(async () => {
          const changed = await answerOf(api.PATCH("/api/account", { body: { name: typed("name") } }));
          queries.setQueryData(keys.session, changed);
          return "Your name is changed. It stands on books that you begin from now on.";
        });
      }}
    >
      <Field
        name="name"
        label="Your name, as it stands on your books"
        autoComplete="name"
        defaultValue={account.name}
        problem={problemOf("name")}
      />
      <Told done={done} error={error} fields={["name"]} />
      <Button type="submit" className="self-start" disabled={busy}>
        Change name
      </Button>
    </form>
  );
}

/** The address to sign in with; a new one is confirmed from there. */
export function OwnEmail({ account, canMail }: { account: Account; canMail: boolean }) {
  const { busy, done, error, problemOf, send } = useSending();
  if (!canMail)
    return (
      <p>
        You sign in as <strong>{account.email}</strong>. This Vennet has no mail server, so a new address
        cannot be confirmed here.
      </p>
    );
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => {
        const typed = typedInto(event);
        const body = { email: typed("email"), current: typed("current") };
        void send(async () => {
          await answerOf(api.POST("/api/account/email", { body }));
          return `A link was mailed to ${body.email}. Open it within an hour; until then you sign in as ${account.email}.`;
        });
      }}
    >
      <p>
        You sign in as <strong>{account.email}</strong>.
      </p>
      <Field
        name="email"
        type="email"
        label="New email address"
        autoComplete="email"
        problem={problemOf("email")}
      />
      <Field
        name="current"
        type="password"
        label="Your password"
        autoComplete="current-password"
        problem={problemOf("current")}
      />
      <Told done={done} error={error} fields={["email", "current"]} />
      <Button type="submit" className="self-start" disabled={busy}>
        Send a link there
      </Button>
    </form>
  );
}

/** A new password; whoever else is signed in has to come in anew. */
export function OwnPassword({ account }: { account: Account }) {
  const queries = useQueryClient();
  const { busy, done, error, problemOf, send } = useSending();
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => {
        const form = event.currentTarget;
        const typed = typedInto(event);
        const body = { current: typed("current"), password: typed("password") };
        void send(async () => {
          await answerOf(api.PUT("/api/account/password", { body }));
          form.reset();
          await queries.invalidateQueries({ queryKey: keys.sessions });
          return "Your password is changed. Everywhere else you are signed out.";
        });
      }}
    >
      <input type="hidden" autoComplete="username" value={account.email} readOnly />
      <Field
        name="current"
        type="password"
        label="Password until now"
        autoComplete="current-password"
        problem={problemOf("current")}
      />
      <Field
        name="password"
        type="password"
        label="New password"
        autoComplete="new-password"
        hint="At least 10 characters; four words do well."
        problem={problemOf("password")}
      />
      <Told done={done} error={error} fields={["current", "password"]} />
      <Button type="submit" className="self-start" disabled={busy}>
        Change password
      </Button>
    </form>
  );
}
