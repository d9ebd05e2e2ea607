import { Module } from "@nestjs/common";
import { TypeOrmModule } from "@nestjs/typeorm";
import { Account } from "./account.entity.ts";
import { AccountsController } from "./accounts.controller.ts";
import { AccountsService } from "./accounts.service.ts";
import { MailedLinksService } from "./mailed-links.service.ts";
import { Mailer } from "./mailer.ts";
import { OwnAccountController } from "./own-account.controller.ts";
import { QuotaService } from "./quota.service.ts";
import { Session } from "./session.entity.ts";
import { SessionsService } from "./sessions.service.ts";
import { SignInLimits } from "./sign-in-limits.ts";

/** Who signs in, their sessions, and what they may have. */
@Module({
  imports: [TypeOrmModule.forFeature([Account, Session])],
  controllers: [AccountsController, OwnAccountController],
  providers: [AccountsService, MailedLinksService, Mailer, QuotaService, SessionsService, SignInLimits],
  exports: [AccountsService, QuotaService, SessionsService],
})
export class AccountsModule {}
