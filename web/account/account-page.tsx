import { useQuery } from "@tanstack/react-query";
import { useEffect, type ReactNode } from "react";
import { answerOf, api } from "../api/client";
import { keys } from "../api/keys";
import { sessionOf } from "../api/session-of";
import { PageFrame } from "../frame/page-frame";
import { Waiting } from "../parts/notice";
import { Leave } from "./leave";
import { OwnEmail, OwnName, OwnPassword } from "./own-details";
import { SessionsList } from "./sessions-list";
import { Usage } from "./usage";
import { NotRead } from "../parts/not-read";

/** What is the author's own here: name, ways in, what they have, and how to leave. */
export function AccountPage() {
  const session = useQuery(sessionOf);
  const entry = useQuery({ queryKey: keys.entry, queryFn: () => answerOf(api.GET("/api/entry")) });
  useEffect(() => {
    document.title = "Account – Vennet";
  }, []);
  return (
    <PageFrame>
      <div className="h-full overflow-y-auto">
        <div className="mx-auto max-w-3xl px-6 py-8">
          <h1 className="font-serif text-3xl font-semibold">Account</h1>
          <NotRead of={session} />
          <NotRead of={entry} />
          {(session.isPending || entry.isPending) && <Waiting what="Opening your account" />}
          {session.data && entry.data && (
            <div className="mt-6 border border-hairline bg-paper">
              <Section name="Name">
                <OwnName account={session.data} />
              </Section>
              <Section name="Email address">
                <OwnEmail account={session.data} canMail={entry.data.mail} />
              </Section>
              <Section name="Password">
                <OwnPassword account={session.data} />
              </Section>
              <Section name="Signed in">
                <SessionsList />
              </Section>
              <Section name="Room">
                <Usage />
              </Section>
              <Section name="Leaving">
                <Leave />
              </Section>
            </div>
          )}
        </div>
      </div>
    </PageFrame>
  );
}

function Section({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section
      aria-label={name}
      className="grid gap-x-8 gap-y-3 border-b border-hairline px-6 py-6 last:border-b-0 md:grid-cols-[9rem_1fr]"
    >
      <h2 className="font-serif text-lg">{name}</h2>
      <div className="min-w-0">{children}</div>
    </section>
  );
}
