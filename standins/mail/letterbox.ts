import type { AddressInfo } from "node:net";
import { simpleParser } from "mailparser";
import { SMTPServer } from "smtp-server";
import { escapeHtml, htmlPage, type Answer } from "../answers.ts";

/** A mail as it arrived. */
export interface Letter {
  to: string;
  subject: string;
  text: string;
}

const most = 200;
const letters: Letter[] = [];

/** Starts the mail server of the stand-in mail on loopback: it takes every mail, and sends none on. */
export async function startLetterbox(port: number): Promise<number> {
  const server = new SMTPServer({
    disabledCommands: ["AUTH", "STARTTLS"],
    logger: false,
    onData(stream, session, done) {
      simpleParser(stream).then(({ subject = "", text = "" }) => {
        const to = session.envelope.rcptTo.map(({ address }) => address).join(", ");
        letters.unshift({ to, subject, text });
        letters.length = Math.min(letters.length, most);
        done();
      }, done);
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once("error", reject);
    server.listen(port, "127.0.0.1", resolve);
  });
  return (server.server.address() as AddressInfo).port;
}

/** The letters that came, the newest first; of one address where `to` names it. */
export function lettersTo(to: string | null): Letter[] {
  return letters.filter((letter) => to === null || letter.to === to);
}

/** The letterbox as a page, in which links can be followed. */
export const answerLetterbox: Answer = (request, response) => {
  const shown = letters.map(({ to, subject, text }) => {
    const words = escapeHtml(text).replace(/https?:\/\/\S+/g, '<a href="$&">$&</a>');
    return `<article><h2>${escapeHtml(subject)}</h2><p>To ${escapeHtml(to)}</p><pre>${words}</pre></article>`;
  });
  htmlPage(response, request, "Letters that came", shown.join("") || "<p>None has come yet.</p>");
};
