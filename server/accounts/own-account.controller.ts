import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Ip,
  Param,
  Patch,
  Post,
  Put,
  Req,
  Res,
} from "@nestjs/common";
import { ApiAcceptedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import type { Request, Response } from "express";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Account } from "./account.entity.ts";
import { accountAnswer } from "./accounts.controller.ts";
import {
  AccountAnswer,
  ChangeEmailRequest,
  ChangePasswordRequest,
  OwnPasswordRequest,
  RenameAccountRequest,
  SessionAnswer,
  UsageAnswer,
} from "./accounts.dto.ts";
import { AccountsService, demoSignIn } from "./accounts.service.ts";
import { MailedLinksService } from "./mailed-links.service.ts";
import { QuotaService } from "./quota.service.ts";
import { sessionCookie, sessionToken, SignedIn } from "./session.guard.ts";
import { SessionsService } from "./sessions.service.ts";
import { hashToken } from "./tokens.ts";
import { SignInLimits } from "./sign-in-limits.ts";

/** What an author does with their own account. */
@ApiTags("account")
@Controller("account")
export class OwnAccountController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly sessions: SessionsService,
    private readonly links: MailedLinksService,
    private readonly limits: SignInLimits,
    private readonly quota: QuotaService,
    private readonly settings: Settings,
  ) {}

  @Patch()
  @ApiOkResponse({ type: AccountAnswer })
  async rename(@SignedIn() account: Account, @Body() { name }: RenameAccountRequest): Promise<AccountAnswer> {
    await this.accounts.rename(account, name);
    return accountAnswer({ ...account, name });
  }

  @Put("password")
  @HttpCode(204)
  @ApiNoContentResponse({ description: "All other sessions are ended." })
  async changePassword(
    @SignedIn() account: Account,
    @Body() { current, password }: ChangePasswordRequest,
    @Ip() address: string,
    @Req() request: Request,
  ): Promise<void> {
    this.assertNotDemo(account);
    await this.assertOwn(account, current, address);
    await this.accounts.changePassword(account, password);
    await this.sessions.endAll(account.id, sessionToken(request));
  }

  @Post("email")
  @HttpCode(202)
  @ApiAcceptedResponse({
    description: "A link was mailed to the new address, which holds once it was opened.",
  })
  async changeEmail(
    @SignedIn() account: Account,
    @Body() { current, email }: ChangeEmailRequest,
    @Ip() address: string,
  ): Promise<void> {
    this.assertNotDemo(account);
    await this.assertOwn(account, current, address);
    await this.links.offerEmail(account, email);
  }

  @Get("sessions")
  @ApiOkResponse({ type: [SessionAnswer], description: "Where the account is signed in, seen last first." })
  async list(@SignedIn() account: Account, @Req() request: Request): Promise<SessionAnswer[]> {
    const own = hashToken(sessionToken(request)!);
    return (await this.sessions.of(account)).map(({ id, device, createdAt, lastSeenAt, tokenHash }) => ({
      id,
      device,
      createdAt: createdAt.toISOString(),
      lastSeenAt: lastSeenAt.toISOString(),
      isThis: tokenHash === own,
    }));
  }

  @Delete("sessions/:sessionId")
  @HttpCode(204)
  @ApiNoContentResponse()
  async endSession(@SignedIn() account: Account, @Param("sessionId") id: string): Promise<void> {
    await this.sessions.endById(account, id);
  }

  @Delete("sessions")
  @HttpCode(204)
  @ApiNoContentResponse({ description: "All but the one that asks are ended." })
  async endOthers(@SignedIn() account: Account, @Req() request: Request): Promise<void> {
    await this.sessions.endAll(account.id, sessionToken(request));
  }

  @Get("usage")
  @ApiOkResponse({ type: UsageAnswer, description: "What the account has of what it may have." })
  usage(@SignedIn() account: Account): Promise<UsageAnswer> {
    return this.quota.usage(account.id);
  }

  @Post("deletion")
  @HttpCode(204)
  @ApiNoContentResponse({ description: "The account is gone, with all of its books." })
  async remove(
    @SignedIn() account: Account,
    @Body() { current }: OwnPasswordRequest,
    @Ip() address: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    this.assertNotDemo(account);
    await this.assertOwn(account, current, address);
    await this.accounts.remove(account);
    response.clearCookie(sessionCookie, { path: "/" });
  }

  /** Whoever found a session open is not let try passwords either. */
  private assertOwn(account: Account, password: string, address: string): Promise<void> {
    return this.limits.tried(account.email, address, () =>
      this.accounts.assertOwn(account, password, "current"),
    );
  }

  /** The demo account is everybody's. */
  private assertNotDemo({ email }: Account): void {
    if (!this.settings.demo || email !== demoSignIn.email) return;
    throw new Problem(403, "demo", "The demo’s account is everybody’s. Make one of your own for this.");
  }
}
