import { randomBytes, randomUUID } from "node:crypto";
import { Injectable } from "@nestjs/common";
import { InjectDataSource, InjectRepository } from "@nestjs/typeorm";
import { hash, verify } from "@node-rs/argon2";
import { DataSource, LessThan, MoreThan, Repository, type EntityManager } from "typeorm";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Account } from "./account.entity.ts";
import type { NewAccountRequest } from "./accounts.dto.ts";
import { Invitation } from "./invitation.entity.ts";
import { assertPassword } from "./password-rule.ts";
import { hashToken, newToken } from "./tokens.ts";

/** The demo account's sign-in; it exists only where the demo is on. */
export const demoSignIn = { email: "walker@hesterley.example", password: "low-tide-at-nine" };
const invitationDays = 14;

// Verified for unknown addresses too, so that the time of an answer does not tell who has an account.
const unknownAccountHash = hash(randomBytes(16).toString("hex"));

/** What the database says of a second row where there may be one alone. */
const taken = "ER_DUP_ENTRY";

/** Accounts: who may sign in, by what password. */
@Injectable()
export class AccountsService {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    @InjectRepository(Account) private readonly accounts: Repository<Account>,
    private readonly settings: Settings,
  ) {}

  /**
   * Makes an account, where the operator's switch lets who asks.
   * @throws Problem `email-taken` where the address has an account, or gets one at the same time
   */
  async register({ name, email, password, invitation }: NewAccountRequest): Promise<Account> {
    const { registration } = this.settings;
    if (registration === "closed")
      throw new Problem(
        403,
        "registration",
        "Nobody can make an account here. Ask whoever runs this Vennet.",
      );
    assertPassword(password, "password", [name, email]);
    return this.database.transaction(async (manager) => {
      if (registration === "invitation") await this.useInvitation(manager, invitation ?? "");
      return this.insert(manager, { name, email, password });
    });
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

  /** @throws Problem where it is not the account's password */
  async assertOwn(account: Account, password: string, field: string): Promise<void> {
    if (await verify(account.passwordHash, password)) return;
    throw new Problem(403, "wrong-password", "This is not your password.", field);
  }

  /** The account of an email address; null where there is none. */
  byEmail(email: string): Promise<Account | null> {
    return this.accounts.findOneBy({ email: email.toLowerCase() });
  }

  async rename(account: Account, name: string): Promise<void> {
    await this.accounts.update({ id: account.id }, { name });
  }

  /** @throws Problem that says what is wrong with the new password */
  async changePassword(account: Account, password: string, manager = this.database.manager): Promise<void> {
    assertPassword(password, "password", [account.name, account.email]);
    await manager.update(Account, { id: account.id }, { passwordHash: await hash(password) });
  }

  /** @throws Problem `email-taken` where another account has the address */
  async changeEmail(id: string, email: string, manager: EntityManager): Promise<void> {
    await unlessTaken(manager.update(Account, { id }, { email: email.toLowerCase() }));
  }

  /** Deletes an account with all of its books. */
  async remove(account: Account): Promise<void> {
    await this.accounts.delete({ id: account.id });
  }

  /** The account of the demo, made where there is none yet. */
  async demoAccount(): Promise<Account> {
    const account = await this.accounts.findOneBy({ email: demoSignIn.email });
    return account ?? this.insert(this.database.manager, { ...demoSignIn, name: "Orla Tindrum" });
  }

  /** The token of a new invitation, which is not kept. */
  async invite(): Promise<string> {
    const token = newToken();
    const { manager } = this.database;
    await manager.delete(Invitation, { expiresAt: LessThan(new Date()) });
    await manager.insert(Invitation, {
      tokenHash: hashToken(token),
      expiresAt: new Date(Date.now() + invitationDays * 86_400_000),
    });
    return token;
  }

  private async useInvitation(manager: EntityManager, token: string): Promise<void> {
    const used = await manager.delete(Invitation, {
      tokenHash: hashToken(token),
      expiresAt: MoreThan(new Date()),
    });
    if (used.affected) return;
    throw new Problem(
      403,
      "invitation",
      "An account can be made here by a link of invitation alone, and this one does not hold, or no more. Ask whoever runs this Vennet for one.",
    );
  }

  private async insert(
    manager: EntityManager,
    { name, email, password }: Pick<NewAccountRequest, "name" | "email" | "password">,
  ): Promise<Account> {
    const account = manager.create(Account, {
      id: randomUUID(),
      email: email.toLowerCase(),
      name,
      passwordHash: await hash(password),
    });
    await unlessTaken(manager.insert(Account, account));
    return account;
  }
}

async function unlessTaken(writing: Promise<unknown>): Promise<void> {
  try {
    await writing;
  } catch (error) {
    if ((error as { code?: string }).code !== taken) throw error;
    throw new Problem(
      409,
      "email-taken",
      "This email address already has an account. Sign in instead.",
      "email",
    );
  }
}
