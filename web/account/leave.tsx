import { useQueryClient } from "@tanstack/react-query";
import { useState, type FormEvent } from "react";
import { useNavigate } from "react-router";
import { answerOf, api } from "../api/client";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Told } from "./told";
import { useSending } from "./use-sending";

/** Taking everything along, and deleting the account with all of its books. */
export function Leave() {
  const [isLeaving, setLeaving] = useState(false);
  const [isTaken, setTaken] = useState(false);
  const { busy, done, error, problemOf, send } = useSending();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const remove = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const current = String(new FormData(event.currentTarget).get("current"));
    void send(async () => {
      await answerOf(api.POST("/api/account/deletion", { body: { current } }));
      queries.clear();
      await navigate("/sign-in");
      return "";
    });
  };
  return (
    <div className="flex flex-col items-start gap-3">
      <p>
        One file (zip) with a folder for each book: its text, pictures, companion files and exported files.
      </p>
      <a
        href="/api/account/everything"
        download
        onClick={() => setTaken(true)}
        className="underline decoration-edge underline-offset-4 hover:text-blue hover:decoration-blue"
      >
        Download everything
      </a>
      {!isLeaving && (
        <Button kind="grave" onClick={() => setLeaving(true)}>
          Delete the account
        </Button>
      )}
      {isLeaving && (
        <form onSubmit={remove} noValidate className="flex w-full flex-col gap-3 border-l-4 border-red pl-4">
          <p>
            The account and all of its books are gone for good then; nobody can bring them back.
            {!isTaken && " You have not downloaded everything yet."}
          </p>
          <Field
            name="current"
            type="password"
            label="Your password"
            autoComplete="current-password"
            autoFocus
            problem={problemOf("current")}
          />
          <Told done={done} error={error} fields={["current"]} />
          <div className="flex gap-3">
            <Button kind="grave" type="submit" disabled={busy}>
              Delete account and books
            </Button>
            <Button onClick={() => setLeaving(false)}>Cancel</Button>
          </div>
        </form>
      )}
    </div>
  );
}
