import { Module } from "@nestjs/common";
import { LedgerModule } from "../ledger/ledger.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { FilePlacesService } from "./file-places.service.ts";
import { FilesController } from "./files.controller.ts";
import { FilesService } from "./files.service.ts";

/** Pictures, companion files and exported files. */
@Module({
  imports: [LedgerModule, WorkersModule],
  controllers: [FilesController],
  providers: [FilesService, FilePlacesService],
  exports: [FilesService, FilePlacesService],
})
export class FilesModule {}
