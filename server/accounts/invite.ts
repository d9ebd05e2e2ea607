import { NestFactory } from "@nestjs/core";
import { Module } from "@nestjs/common";
import { databaseModule } from "../database/database.module.ts";
import { SettingsModule } from "../settings.module.ts";
import { Settings } from "../settings.ts";
import { AccountsModule } from "./accounts.module.ts";
import { AccountsService } from "./accounts.service.ts";
import { Mailer } from "./mailer.ts";

/** Makes an invitation for whoever runs a server, and gives its link, which holds for one account. */
export async function invite(env: NodeJS.ProcessEnv): Promise<string> {
  const settings = new Settings(env);
  @Module({
    imports: [SettingsModule.with(settings), databaseModule(settings.databaseUrl), AccountsModule],
  })
  class InviteModule {}
  const app = await NestFactory.createApplicationContext(InviteModule, { logger: false });
  const link = app.get(Mailer).link("sign-in", await app.get(AccountsService).invite());
  await app.close();
  return link;
}
