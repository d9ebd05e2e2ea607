import { randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectRepository } from "@nestjs/typeorm";
import { LessThan, MoreThan, Not, Repository } from "typeorm";
import { isDiskFull } from "../database/away.ts";
import { notFound } from "../errors/problem.ts";
import { Account } from "./account.entity.ts";
import { Session } from "./session.entity.ts";
import { hashToken, newToken } from "./tokens.ts";

/** How long a session lasts. */
export const sessionDays = 30;
const longestDevice = 300;
/** When a session was seen last is told to so many milliseconds, so that not every request writes. */
const seenPrecision = 60_000;

/** Who is signed in where. */
@Injectable()
export class SessionsService {
  constructor(@InjectRepository(Session) private readonly sessions: Repository<Session>) {}

  /**
   * Begins a session and returns its token, which is not kept.
   * @param device what the browser or script calls itself
   */
  async begin(account: Account, device: string): Promise<string> {
    const token = newToken();
    const now = new Date();
    await this.sessions.delete({ expiresAt: LessThan(now) });
    await this.sessions.insert({
      tokenHash: hashToken(token),
      id: randomUUID(),
      accountId: account.id,
      device: device.slice(0, longestDevice),
      createdAt: now,
      lastSeenAt: now,
      expiresAt: new Date(now.getTime() + sessionDays * 86_400_000),
    });
    return token;
  }

  /** Whose session a token is; null where it has run out or never was. */
  async accountFor(token: string): Promise<Account | null> {
    const tokenHash = hashToken(token);
    const now = new Date();
    // In one question, since every request asks it.
    const session = (await this.sessions
      .createQueryBuilder("session")
      .innerJoinAndMapOne("session.account", Account, "account", "account.id = session.accountId")
      .where("session.tokenHash = :tokenHash", { tokenHash })
      .getOne()) as (Session & { account: Account }) | null;
    if (!session || session.expiresAt < now) return null;
    if (now.getTime() - session.lastSeenAt.getTime() > seenPrecision)
      await this.sessions.update({ tokenHash }, { lastSeenAt: now }).catch((error: unknown) => {
        // An author may read on while there is no room for this either.
        if (!isDiskFull(error)) throw error;
      });
    return session.account;
  }

  /** An account's sessions that have not run out, the one seen last first. */
  of(account: Account): Promise<Session[]> {
    return this.sessions.find({
      where: { accountId: account.id, expiresAt: MoreThan(new Date()) },
      order: { lastSeenAt: "DESC", createdAt: "DESC" },
    });
  }

  /** Signs out: the token opens nothing from now on. */
  async end(token: string): Promise<void> {
    await this.sessions.delete({ tokenHash: hashToken(token) });
  }

  /** @throws Problem 404 where the account has no such session */
  async endById(account: Account, id: string): Promise<void> {
    const ended = await this.sessions.delete({ id, accountId: account.id });
    if (!ended.affected) throw notFound("session");
  }

  /** Ends all sessions of an account, but that of a token where one is given. */
  async endAll(accountId: string, butToken: string | null): Promise<void> {
    await this.sessions.delete({
      accountId,
      ...(butToken === null ? {} : { tokenHash: Not(hashToken(butToken)) }),
    });
  }
}
