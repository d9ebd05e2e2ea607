import { Injectable, Logger } from "@nestjs/common";
import { createTransport, type Transporter } from "nodemailer";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";

/** A mail in plain words. */
export interface Mail {
  to: string;
  subject: string;
  text: string;
}

/** Sends mails through the server that SMTP_URL names. */
@Injectable()
export class Mailer {
  private readonly logger = new Logger(Mailer.name);
  private readonly transport: Transporter | null;

  constructor(private readonly settings: Settings) {
    this.transport = settings.smtpUrl ? createTransport(settings.smtpUrl) : null;
  }

  /** @throws Problem where this Vennet has no mail server */
  assertCanSend(): void {
    if (this.transport) return;
    throw new Problem(
      503,
      "no-mail",
      "This Vennet has no mail server, so it cannot send a link. Ask whoever runs it.",
    );
  }

  /** Sends a mail by and by: whoever asked for it does not wait, and cannot tell by the time whether one was sent. */
  send(mail: Mail): void {
    this.transport
      ?.sendMail({ ...mail, from: this.settings.mailFrom })
      // Neither the address nor the link is anything for a log.
      .catch((error: unknown) => this.logger.error(`A mail was not sent: ${(error as Error).message}`));
  }

  /** The address of a page of this Vennet, for a link in a mail. The secret stands in the fragment, which no server is told. */
  link(page: string, token: string): string {
    const base = this.settings.publicAddress ?? `http://${this.settings.host}:${this.settings.port}`;
    return `${base}/${page}#${token}`;
  }
}
