import {
  createParamDecorator,
  Injectable,
  SetMetadata,
  type CanActivate,
  type ExecutionContext,
} from "@nestjs/common";
import { Reflector } from "@nestjs/core";
import type { Request } from "express";
import { Problem } from "../errors/problem.ts";
import type { Account } from "./account.entity.ts";
import { AccountsService } from "./accounts.service.ts";

export const sessionCookie = "vennet_session";
type SignedInRequest = Request & { account?: Account; cookies: Record<string, string | undefined> };

const openKey = "open-to-all";
/** Marks a route that needs no session. Every other route does. */
export const OpenToAll = (): MethodDecorator => SetMetadata(openKey, true);

/** The account of the session that a request belongs to. */
export const SignedIn = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<SignedInRequest>().account,
);

@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly accounts: AccountsService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.reflector.get<boolean>(openKey, context.getHandler())) return true;
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const token = request.cookies[sessionCookie];
    const account = token ? await this.accounts.accountFor(token) : null;
    if (!account) throw new Problem(401, "signed-out", "Sign in first.");
    request.account = account;
    return true;
  }
}
