import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState, type FormEvent } from "react";
import { useLocation, useNavigate } from "react-router";
import { answerOf, api, ApiError, type Account } from "../api/client";
import { keys } from "../api/keys";
import { Button } from "../parts/button";
import { Field } from "../parts/field";
import { Problem } from "../parts/notice";
import { ForgottenPassword } from "./forgotten-password";

/** Where one signs in, makes an account, or looks around in the demo. */
export function SignInPage() {
  // Whoever comes by a link of invitation is to make an account; the secret does not stay in the address.
  const [invitation] = useState(() => location.hash.slice(1));
  const [registering, setRegistering] = useState(invitation !== "");
  const [forgetting, setForgetting] = useState(false);
  const [error, setError] = useState<ApiError | null>(null);
  const [busy, setBusy] = useState(false);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? "/";
  const entry = useQuery({ queryKey: keys.entry, queryFn: () => answerOf(api.GET("/api/entry")) });
  useEffect(() => {
    document.title = "Sign in – Vennet";
    if (invitation) history.replaceState(null, "", location.pathname);
  }, [invitation]);
  const health = useQuery({ queryKey: keys.health, queryFn: () => answerOf(api.GET("/api/health")) });

  const enter = async (call: Promise<Account>): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      const account = await call;
      // What the page still knows may be another account's.
      queries.clear();
      queries.setQueryData(keys.session, account);
      await navigate(from, { replace: true });
    } catch (problem) {
      setError(problem as ApiError);
    } finally {
      setBusy(false);
    }
  };

  const submit = (event: FormEvent<HTMLFormElement>): void => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const body = { email: String(data.get("email")), password: String(data.get("password")) };
    const name = String(data.get("name"));
    void enter(
      answerOf(
        registering
          ? api.POST("/api/accounts", { body: { ...body, name, ...(invitation ? { invitation } : {}) } })
          : api.POST("/api/session", { body }),
      ),
    );
  };
  const mayRegister =
    entry.data?.registration === "open" || (entry.data?.registration === "invitation" && invitation !== "");
  const problemOf = (field: string): string | null => (error?.field === field ? error.message : null);

  return (
    <main className="flex min-h-dvh items-center justify-center p-6">
      <div className="grid w-full max-w-4xl border border-hairline bg-paper md:grid-cols-[1fr_20rem]">
        <div className="border-b border-hairline p-8 md:border-r md:border-b-0 md:p-12">
          <h1 className="font-serif text-4xl font-semibold">Vennet</h1>
          <p className="mt-4 max-w-md font-serif text-lg leading-relaxed">
            Write a book, and let every link in it lead where it says. Vennet asks each address, and reads the
            exported file back to prove that nothing was lost.
          </p>
          {health.data?.demo && (
            <div className="mt-8">
              <Button
                kind="main"
                disabled={busy}
                onClick={() => void enter(answerOf(api.POST("/api/session/demo")))}
              >
                Open the demo book
              </Button>
              <p className="mt-2 max-w-md text-faint">
                A walkers’ guide to the tidal causeways of Hesterley Sound, with links that are sound and some
                that are not. No password is needed.
              </p>
            </div>
          )}
        </div>
        {forgetting ? (
          <ForgottenPassword onLeave={() => setForgetting(false)} />
        ) : (
          <form onSubmit={submit} className="flex flex-col gap-4 p-8" noValidate>
            <h2 className="font-serif text-xl">{registering ? "New account" : "Sign in"}</h2>
            {registering && (
              <Field
                name="name"
                label="Your name, as it stands on your books"
                autoComplete="name"
                problem={problemOf("name")}
              />
            )}
            <Field
              name="email"
              type="email"
              label="Email address"
              autoComplete="email"
              problem={problemOf("email")}
            />
            <Field
              name="password"
              type="password"
              label="Password"
              autoComplete={registering ? "new-password" : "current-password"}
              hint={registering ? "At least 10 characters; four words do well." : undefined}
              problem={problemOf("password")}
            />
            {error && !error.field && <Problem>{error.message}</Problem>}
            <Button
              kind={health.data?.demo ? "plain" : "main"}
              type="submit"
              disabled={busy}
              className="justify-center"
            >
              {registering ? "Make the account" : "Sign in"}
            </Button>
            {mayRegister && (
              <Button
                kind="quiet"
                className="self-start"
                onClick={() => {
                  setRegistering(!registering);
                  setError(null);
                }}
              >
                {registering ? "I have an account" : "I have no account yet"}
              </Button>
            )}
            {!registering && entry.data?.mail && (
              <Button kind="quiet" className="self-start" onClick={() => setForgetting(true)}>
                I have forgotten my password
              </Button>
            )}
            {entry.data && !mayRegister && (
              <p className="text-sm text-faint">
                {entry.data.registration === "closed"
                  ? "No new accounts are made here."
                  : "An account is made here by a link of invitation. Ask whoever runs this Vennet for one."}
              </p>
            )}
          </form>
        )}
      </div>
    </main>
  );
}
