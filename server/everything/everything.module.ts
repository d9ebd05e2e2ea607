import { Module } from "@nestjs/common";
import { BooksModule } from "../books/books.module.ts";
import { FilesModule } from "../files/files.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { EverythingController } from "./everything.controller.ts";
import { EverythingService } from "./everything.service.ts";

/** All that an account holds, as one file. */
@Module({
  imports: [BooksModule, FilesModule, WorkersModule],
  controllers: [EverythingController],
  providers: [EverythingService],
})
export class EverythingModule {}
