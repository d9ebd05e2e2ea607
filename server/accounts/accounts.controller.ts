import { Body, Controller, Delete, Get, HttpCode, Post, Req, Res } from "@nestjs/common";
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from "@nestjs/swagger";
import type { Request, Response } from "express";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Account } from "./account.entity.ts";
import { AccountAnswer, NewAccountRequest, SignInRequest } from "./accounts.dto.ts";
import { AccountsService, sessionDays } from "./accounts.service.ts";
import { OpenToAll, sessionCookie, sessionToken, SignedIn } from "./session.guard.ts";

@ApiTags("accounts")
@Controller()
export class AccountsController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly settings: Settings,
  ) {}

  @Post("accounts")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async register(
    @Body() request: NewAccountRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountAnswer> {
    return this.signInAs(await this.accounts.create(request), response);
  }

  @Post("session")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async signIn(
    @Body() request: SignInRequest,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountAnswer> {
    return this.signInAs(await this.accounts.authenticate(request.email, request.password), response);
  }

  @Post("session/demo")
  @OpenToAll()
  @ApiCreatedResponse({ type: AccountAnswer })
  async signInToDemo(@Res({ passthrough: true }) response: Response): Promise<AccountAnswer> {
    if (!this.settings.demo) throw new Problem(404, "no-demo", "This Vennet has no demo account.");
    return this.signInAs(await this.accounts.demoAccount(), response);
  }

  @Get("session")
  @ApiOkResponse({ type: AccountAnswer })
  current(@SignedIn() account: Account): AccountAnswer {
    return answer(account);
  }

  @Delete("session")
  @HttpCode(204)
  @ApiNoContentResponse()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = sessionToken(request);
    if (token) await this.accounts.endSession(token);
    response.clearCookie(sessionCookie, { path: "/" });
  }

  private async signInAs(account: Account, response: Response): Promise<AccountAnswer> {
    response.cookie(sessionCookie, await this.accounts.beginSession(account), {
      httpOnly: true,
      sameSite: "lax",
      secure: this.settings.secureCookies,
      maxAge: sessionDays * 86_400_000,
      path: "/",
    });
    return answer(account);
  }
}

function answer({ id, name, email }: Account): AccountAnswer {
  return { id, name, email };
}
