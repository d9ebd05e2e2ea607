import { Injectable, Logger } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, LessThan, MoreThan, type EntityManager } from "typeorm";
import { PassingProblem, Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Account } from "./account.entity.ts";
import { AccountsService, demoSignIn } from "./accounts.service.ts";
import { Mailer } from "./mailer.ts";
import { MailedLink } from "./mailed-link.entity.ts";
import { SessionsService } from "./sessions.service.ts";
import { SignInLimits } from "./sign-in-limits.ts";
import { hashToken, newToken } from "./tokens.ts";

const lastsMs = 60 * 60_000;

/**
 * Links that go out by mail and hold once, for an hour: for a new password, and to confirm a new address (OWASP ASVS
 * 4.0.3, 2.5.6 and 2.7, from memory).
 */
@Injectable()
export class MailedLinksService {
  private readonly logger = new Logger(MailedLinksService.name);

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly accounts: AccountsService,
    private readonly sessions: SessionsService,
    private readonly mailer: Mailer,
    private readonly limits: SignInLimits,
    private readonly settings: Settings,
  ) {}

  /**
   * Sends a link for a new password, where the address has an account. It is looked for by and by: neither the answer
   * nor its time tells whether it has.
   */
  offerPassword(email: string): void {
    this.mailer.assertCanSend();
    this.mailPassword(email.toLowerCase()).catch((error: unknown) =>
      this.logger.error(`A link for a new password was not made: ${(error as Error).message}`),
    );
  }

  private async mailPassword(email: string): Promise<void> {
    if (!(await this.limits.mayMail(email))) return;
    const account = await this.accounts.byEmail(email);
    // The demo's account is everybody's, and its password nobody's to change.
    if (!account || (this.settings.demo && email === demoSignIn.email)) return;
    const token = await this.keep(account, "password", null);
    this.mailer.send({
      to: account.email,
      subject: "A new password for Vennet",
      text: `Somebody, we hope you, asked for a new password for ${account.name} at Vennet. Choose it here within an hour:\n\n${this.mailer.link("new-password", token)}\n\nIf it was not you, do nothing: your password stays as it is.\n`,
    });
  }

  /**
   * Gives the account of a link a new password, and ends all of its sessions.
   * @throws Problem where the link holds no more, or the password cannot be taken; then the link still holds
   */
  async usePassword(token: string, password: string): Promise<void> {
    await this.database.transaction(async (manager) => {
      const { accountId } = await this.take(manager, token, "password");
      const account = await manager.findOneByOrFail(Account, { id: accountId });
      await this.accounts.changePassword(account, password, manager);
      await manager.delete(MailedLink, { accountId, purpose: "password" });
      await this.sessions.endAll(accountId, null);
    });
  }

  /** Sends a link to a new address, which is the account's once that was opened. */
  async offerEmail(account: Account, email: string): Promise<void> {
    this.mailer.assertCanSend();
    if (!(await this.limits.mayMail(email.toLowerCase())))
      throw new PassingProblem(
        429,
        "too-many-mails",
        "Several mails went to this address already. Try again in an hour.",
        lastsMs / 1000,
      );
    const token = await this.keep(account, "email", email.toLowerCase());
    this.mailer.send({
      to: email,
      subject: "Your new address at Vennet",
      text: `${account.name} at Vennet is to have this address from now on. If you are, confirm it here within an hour:\n\n${this.mailer.link("confirm-email", token)}\n\nIf not, do nothing.\n`,
    });
  }

  /** @throws Problem where the link holds no more, or the address was taken meanwhile */
  async useEmail(token: string): Promise<string> {
    return this.database.transaction(async (manager) => {
      const { accountId, email } = await this.take(manager, token, "email");
      await this.accounts.changeEmail(accountId, email!, manager);
      return email!;
    });
  }

  private async keep(
    account: Account,
    purpose: MailedLink["purpose"],
    email: string | null,
  ): Promise<string> {
    const token = newToken();
    const { manager } = this.database;
    await manager.delete(MailedLink, { expiresAt: LessThan(new Date()) });
    const link = { tokenHash: hashToken(token), purpose, email, expiresAt: new Date(Date.now() + lastsMs) };
    await manager.insert(MailedLink, { ...link, accountId: account.id });
    return token;
  }

  private async take(
    manager: EntityManager,
    token: string,
    purpose: MailedLink["purpose"],
  ): Promise<MailedLink> {
    const tokenHash = hashToken(token);
    const where = { tokenHash, purpose, expiresAt: MoreThan(new Date()) };
    const link = await manager.findOneBy(MailedLink, where);
    const used = await manager.delete(MailedLink, where);
    if (link && used.affected) return link;
    throw new Problem(
      410,
      "link-over",
      "This link holds no more: it holds once, and for an hour. Ask for a new one.",
    );
  }
}
