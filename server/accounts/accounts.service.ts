import { createHash, randomBytes, randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectRepository } from "@nestjs/typeorm";
import { hash, verify } from "@node-rs/argon2";
import { LessThan, Repository } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { Account } from "./account.entity.ts";
import type { NewAccountRequest } from "./accounts.contract.ts";
import { Session } from "./session.entity.ts";

export const sessionDays = 30;
/** The demo account's sign-in; it exists only where the demo is on. */
export const demoSignIn = { email: "walker@hesterley.example", password: "low-tide-at-nine" };

// Verified for unknown addresses too, so that the time of an answer does not tell who has an account.
const unknownAccountHash = hash(randomBytes(16).toString("hex"));

@Injectable()
export class AccountsService {
  constructor(
    @InjectRepository(Account) private readonly accounts: Repository<Account>,
    @InjectRepository(Session) private readonly sessions: Repository<Session>,
  ) {}

  async create(request: NewAccountRequest): Promise<Account> {
    const email = request.email.toLowerCase();
    if (await this.accounts.existsBy({ email })) {
      throw new Problem(
        409,
        "email-taken",
        "This email address already has an account. Sign in instead.",
        "email",
      );
    }
    const account = this.accounts.create({
      id: randomUUID(),
      email,
      name: request.name,
      passwordHash: await hash(request.password),
    });
    return this.accounts.save(account);
  }

  async authenticate(email: string, password: string): Promise<Account> {
    const account = await this.accounts.findOneBy({ email: email.toLowerCase() });
    const matches = await verify(account?.passwordHash ?? (await unknownAccountHash), password);
    if (!account || !matches) {
      throw new Problem(401, "sign-in", "Email address and password do not belong together. Try again.");
    }
    return account;
  }

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

  async accountFor(token: string): Promise<Account | null> {
    const session = await this.sessions.findOneBy({ tokenHash: hashToken(token) });
    if (!session || session.expiresAt < new Date()) return null;
    return this.accounts.findOneBy({ id: session.accountId });
  }

  async endSession(token: string): Promise<void> {
    await this.sessions.delete({ tokenHash: hashToken(token) });
  }
}

function hashToken(token: string): string {
  return createHash("sha256").update(token).digest("hex");
}
