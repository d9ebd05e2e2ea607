import { Module } from "@nestjs/common";
import { APP_GUARD } from "@nestjs/core";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { SessionGuard } from "../accounts/session.guard.ts";
import { UploadGuard } from "../files/upload.guard.ts";
import { OperatingModule } from "../operating/operating.module.ts";
import { BookGuard } from "./book.guard.ts";

/** The guards before every route: who asks, whether they may open the book that it names, and upload what they send. */
@Module({
  imports: [AccountsModule, OperatingModule],
  providers: [
    { provide: APP_GUARD, useClass: SessionGuard },
    { provide: APP_GUARD, useClass: BookGuard },
    { provide: APP_GUARD, useClass: UploadGuard },
  ],
})
export class AccessModule {}
