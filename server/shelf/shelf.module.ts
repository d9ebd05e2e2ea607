import { Module } from "@nestjs/common";
import { AccountsModule } from "../accounts/accounts.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { ShelfController } from "./shelf.controller.ts";
import { ShelfService } from "./shelf.service.ts";

/** Ways from one publication into the others of its Shelf. */
@Module({
  imports: [AccountsModule, FilesModule, WorkersModule],
  controllers: [ShelfController],
  providers: [ShelfService],
})
export class ShelfModule {}
