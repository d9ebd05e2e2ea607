import { useQueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { answerOf, api, type Account } from "../api/client";
import { keys } from "../api/keys";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Told } from "./told";
import { useSending } from "./use-sending";

/** What was typed into a field of the form, by the field's name. */
type Typed = (name: string) => string;

/** One thing about the account that can be changed: its fields, what it sends, and how that went. */
function ChangeForm({
  fields,
  action,
  onSend,
  children,
}: {
  /** The fields that tell their own problems. */
  fields: readonly string[];
  action: string;
  /** Sends what was typed, and gives what is said when it went well. */
  onSend: (typed: Typed) => Promise<string>;
  children: (problemOf: (field: string) => string | null) => ReactNode;
}) {
  const { busy, done, error, problemOf, send } = useSending();
  return (
    <form
      className="flex flex-col gap-3"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        const form = event.currentTarget;
        const data = new FormData(form);
        void send(async () => {
          const told = await onSend((name) => String(data.get(name) ?? ""));
          // No password stays in a field longer than it is needed.
          form.querySelectorAll<HTMLInputElement>("[type=password]").forEach((input) => (input.value = ""));
          return told;
        });
      }}
    >
      {children(problemOf)}
      <Told done={done} error={error} fields={fields} />
      <Button type="submit" className="self-start" disabled={busy}>
        {action}
      </Button>
    </form>
  );
}

/** The name that stands on the author's new books. */
export function OwnName({ account }: { account: Account }) {
  const queries = useQueryClient();
  const send = async (typed: Typed): Promise<string> => {
    const changed = await answerOf(api.PATCH("/api/account", { body: { name: typed("name") } }));
    queries.setQueryData(keys.session, changed);
    return "Your name is changed. It stands on books that you begin from now on.";
  };
  return (
    <ChangeForm fields={["name"]} action="Change name" onSend={send}>
      {(problemOf) => (
        <Field
          name="name"
          label="Your name, as it stands on your books"
          autoComplete="name"
          defaultValue={account.name}
          problem={problemOf("name")}
        />
      )}
    </ChangeForm>
  );
}

/** The address to sign in with; a new one is confirmed from there. */
export function OwnEmail({ account, canMail }: { account: Account; canMail: boolean }) {
  const own = <strong className="[overflow-wrap:anywhere]">{account.email}</strong>;
  if (!canMail)
    return (
      <p>You sign in as {own}. This Vennet has no mail server, so a new address cannot be confirmed here.</p>
    );
  const send = async (typed: Typed): Promise<string> => {
    const body = { email: typed("email"), current: typed("current") };
    await answerOf(api.POST("/api/account/email", { body }));
    return `A link was mailed to ${body.email}. Open it within an hour; until then you sign in as ${account.email}.`;
  };
  return (
    <ChangeForm fields={["email", "current"]} action="Send a link there" onSend={send}>
      {(problemOf) => (
        <>
          <p>You sign in as {own}.</p>
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
        </>
      )}
    </ChangeForm>
  );
}

/** A new password; whoever else is signed in has to come in anew. */
export function OwnPassword({ account }: { account: Account }) {
  const queries = useQueryClient();
  const send = async (typed: Typed): Promise<string> => {
    const body = { current: typed("current"), password: typed("password") };
    await answerOf(api.PUT("/api/account/password", { body }));
    await queries.invalidateQueries({ queryKey: keys.sessions });
    return "Your password is changed. Everywhere else you are signed out.";
  };
  return (
    <ChangeForm fields={["current", "password"]} action="Change password" onSend={send}>
      {(problemOf) => (
        <>
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
        </>
      )}
    </ChangeForm>
  );
}
