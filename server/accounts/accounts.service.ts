import { createHash, randomBytes, randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectRepository } from "@nestjs/typeorm";
import { hash, verify } from "@node-rs/argon2";
import { LessThan, Repository } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { Account } from "./account.entity.ts";
import type { NewAccountRequest } from "./accounts.dto.ts";
import { Session } from "./session.entity.ts";

export const sessionDays = 30;
/** The demo account's sign-in; it exists only where the demo is on. */
export const demoSignIn = { email: "walker@hesterley.example", password: "low-tide-at-nine" };

// Verified for unknown addresses too, so that the time of an answer does not tell who has an account.
const unknownAccountHash = hash(randomBytes(16).toString("hex"));

/** What the database says of a second row where there may be one alone. */
const taken = "ER_DUP_ENTRY";

/** Accounts and their sessions. */
@Injectable()
export class AccountsService {
  constructor(
    @InjectRepository(Account) private readonly accounts: Repository<Account>,
    @InjectRepository(Session) private readonly sessions: Repository<Session>,
  ) {}

  /** @throws Problem `email-taken` where the address has an account, or gets one at the same time */
  async create(request: NewAccountRequest): Promise<Account> {
    const account = this.accounts.create({
      id: randomUUID(),
      email: request.email.toLowerCase(),
      name: request.name,
      passwordHash: await hash(request.password),
    });
    try {
      await this.accounts.insert(account);
    } catch (error) {
      if ((error as { code?: string }).code !== taken) throw error;
      throw new Problem(
        409,
        "email-taken",
        "This email address already has an account. Sign in instead.",
        "email",
      );
    }
    return account;
  }

  /**
   * The account of an email address and its password.
   * @throws Problem `sign-in` for either that is wrong, without saying which
   */
  async authenticate(email: string, password: string): Promise<Account> {
    const account = await this.accounts.findOneBy({ email: email.toLowerCase() });
    const matches = await verify(account?.passwordHash ?? (await unknownAccountHash), password);
    if (!account || !matches) {
      throw new Problem(401, "sign-in", "Email address and password do not belong together. Try again.");
    }
    return account;
  }

  /** The account of the demo, made where there is none yet. */
  async demoAccount(): Promise<Account> {
    const account = await this.accounts.findOneBy({ email: demoSignIn.email });
    return account ?? this.create({ ...demoSignIn, name: "Orla Tindrum" });
  }

  /** Begins a session and returns its token, which is not kept. */
  async beginSession(account: Account): Promise<string> {
    const token = randomBytes(32).toString("base64url");
    const expiresAt = new Date(Date.now() + sessionDays * 86_400_000);
    await this.sessions.delete({ expiresAt: LessThan(new Date()) });
    await this.sessions.insert({ tokenHash: hashToken(token), accountId: account.id, expiresAt });
    return token;
  }

  /** Whose session a token is; null where it has run out or never was. */
  async accountFor(token: string): Promise<Account | null> {
    const session = await this.sessions.findOneBy({ tokenHash: hashToken(token) });
    if (!session || session.expiresAt < new Date()) return null;
    return this.accounts.findOneBy({ id: session.accountId });
  }

  /** Signs out: the token opens nothing from now on. */
  async endSession(token: string): Promise<void> {
    await this.sessions.delete({ tokenHash: hashToken(token) });
  }
}

function hashToken(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}
