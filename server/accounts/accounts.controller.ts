import { Body, Controller, Delete, Get, HttpCode, Ip, Post, Req, Res } from "@nestjs/common";
import {
  ApiAcceptedResponse,
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiTags,
} from "@nestjs/swagger";
import type { Request, Response } from "express";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Account } from "./account.entity.ts";
import {
  AccountAnswer,
  ConfirmedEmailAnswer,
  MailedLinkRequest,
  EntryAnswer,
  ForgottenPasswordRequest,
  NewAccountRequest,
  NewPasswordRequest,
  SignInRequest,
} from "./accounts.dto.ts";
import { AccountsService } from "./accounts.service.ts";
import { MailedLinksService } from "./mailed-links.service.ts";
import { OpenToAll, sessionCookie, sessionToken, SignedIn } from "./session.guard.ts";
import { sessionDays, SessionsService } from "./sessions.service.ts";
import { SignInLimits } from "./sign-in-limits.ts";

/** Coming in and going out: what somebody can do who is not signed in. */
@ApiTags("accounts")
@Controller()
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly sessions: SessionsService,
    private readonly links: MailedLinksService,
    private readonly limits: SignInLimits,
    private readonly settings: Settings,
  ) {}

  @Get("entry")
  @OpenToAll()
  @ApiOkResponse({ type: EntryAnswer, description: "By which ways one may come in here." })
  entry(): EntryAnswer {
    return { registration: this.settings.registration, mail: this.settings.smtpUrl !== null };
  }

  @Post("accounts")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async register(
    @Body() request: NewAccountRequest,
    @Ip() address: string,
    @Req() asked: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountAnswer> {
    await this.limits.countSignUp(address);
    return this.signInAs(await this.accounts.register(request), asked, response);
  }

  @Post("session")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async signIn(
    @Body() { email, password }: SignInRequest,
    @Ip() address: string,
    @Req() asked: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountAnswer> {
    const account = await this.limits.tried(email, address, () =>
      this.accounts.authenticate(email, password),
    );
    return this.signInAs(account, asked, response);
  }

  @Post("session/demo")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async signInToDemo(
    @Req() asked: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountAnswer> {
    if (!this.settings.demo) throw new Problem(404, "no-demo", "This Vennet has no demo account.");
    return this.signInAs(await this.accounts.demoAccount(), asked, response);
  }

  @Get("session")
  @ApiOkResponse({ type: AccountAnswer })
  current(@SignedIn() account: Account): AccountAnswer {
    return accountAnswer(account);
  }

  @Delete("session")
  @HttpCode(204)
  @ApiNoContentResponse()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = sessionToken(request);
    if (token) await this.sessions.end(token);
    response.clearCookie(sessionCookie, { path: "/" });
  }

  @Post("password-links")
  @OpenToAll()
  @HttpCode(202)
  @ApiAcceptedResponse({ description: "A link was mailed, if the address has an account." })
  async forgotPassword(@Body() { email }: ForgottenPasswordRequest, @Ip() address: string): Promise<void> {
    await this.limits.countMailAsked(address);
    this.links.offerPassword(email);
  }

  @Post("password-links/use")
  @OpenToAll()
  @HttpCode(204)
  @ApiNoContentResponse({ description: "The password is new, and all sessions are ended." })
  async useNewPassword(@Body() { token, password }: NewPasswordRequest): Promise<void> {
    await this.links.usePassword(token, password);
  }

  @Post("email-links/use")
  @OpenToAll()
  @HttpCode(200)
  @ApiOkResponse({ type: ConfirmedEmailAnswer })
  async confirmEmail(@Body() { token }: MailedLinkRequest): Promise<ConfirmedEmailAnswer> {
    return { email: await this.links.useEmail(token) };
  }

  private async signInAs(account: Account, asked: Request, response: Response): Promise<AccountAnswer> {
    const device = asked.headers["user-agent"] ?? "";
    response.cookie(sessionCookie, await this.sessions.begin(account, device), {
      httpOnly: true,
      sameSite: "lax",
      secure: this.settings.secureCookies,
      maxAge: sessionDays * 86_400_000,
      path: "/",
    });
    return accountAnswer(account);
  }
}

/** An account as the interface tells it. */
export function accountAnswer({ id, name, email }: Account): AccountAnswer {
  return { id, name, email };
}
