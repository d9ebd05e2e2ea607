import { Module } from "@nestjs/common";
import { APP_GUARD } from "@nestjs/core";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { SessionGuard } from "../accounts/session.guard.ts";
import { BookGuard } from "./book.guard.ts";

/** The guards before every route: who asks, then whether they may open the book that the route names. */
@Module({
  imports: [AccountsModule],
  providers: [
    { provide: APP_GUARD, useClass: SessionGuard },
    { provide: APP_GUARD, useClass: BookGuard },
  ],
})
export class AccessModule {}
