import {
  createParamDecorator,
  Injectable,
  SetMetadata,
  type CanActivate,
  type ExecutionContext,
} from "@nestjs/common";
import { Reflector } from "@nestjs/core";
import type { Request } from "express";
import { actAs } from "../access/acting-account.ts";
import { Problem } from "../errors/problem.ts";
import type { Account } from "./account.entity.ts";
import { SessionsService } from "./sessions.service.ts";

export const sessionCookie = "vennet_session";
type SignedInRequest = Request & { account?: Account };

/** The token of the session that a request names; null where it names none. */
export function sessionToken(request: Request): string | null {
  // What a cookie holds is the sender's choice, and may have been read as something else than text.
  const token = (request.cookies as Record<string, unknown>)[sessionCookie];
  return typeof token === "string" && token !== "" ? token : null;
}

const openKey = "open-to-all";
/** Marks a route that needs no session. Every other route does. */
export const OpenToAll = (): MethodDecorator => SetMetadata(openKey, true);

/** The account of the session that a request belongs to. */
export const SignedIn = createParamDecorator(
  (_: unknown, context: ExecutionContext) => context.switchToHttp().getRequest<SignedInRequest>().account,
);

/** Asks every route for a session, but those that are marked as open. */
@Injectable()
export class SessionGuard implements CanActivate {
  constructor(
    private readonly reflector: Reflector,
    private readonly sessions: SessionsService,
  ) {}

  async canActivate(context: ExecutionContext): Promise<boolean> {
    if (this.reflector.get<boolean>(openKey, context.getHandler())) return true;
    const request = context.switchToHttp().getRequest<SignedInRequest>();
    const token = sessionToken(request);
    const account = token ? await this.sessions.accountFor(token) : null;
    if (!account) throw new Problem(401, "signed-out", "Sign in first.");
    request.account = account;
    actAs(account.id);
    return true;
  }
}
