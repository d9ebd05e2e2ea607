import { Module } from "@nestjs/common";
import { TypeOrmModule } from "@nestjs/typeorm";
import { Account } from "./account.entity.ts";
import { AccountsController } from "./accounts.controller.ts";
import { AccountsService } from "./accounts.service.ts";
import { Session } from "./session.entity.ts";

/** Who signs in, and their sessions. */
@Module({
  imports: [TypeOrmModule.forFeature([Account, Session])],
  controllers: [AccountsController],
  providers: [AccountsService],
  exports: [AccountsService],
})
export class AccountsModule {}
