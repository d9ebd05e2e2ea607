import { Module } from "@nestjs/common";
import { LedgerModule } from "../ledger/ledger.module.ts";
import { WorkersModule } from "../workers/workers.module.ts";
import { FileLinksService } from "./file-links.service.ts";
import { FilePlacesService } from "./file-places.service.ts";
import { FilesController } from "./files.controller.ts";
import { PictureSizesService } from "./picture-sizes.service.ts";
import { FilesService } from "./files.service.ts";

/** Pictures, companion files and exported files. */
@Module({
  imports: [LedgerModule, WorkersModule],
  controllers: [FilesController],
  providers: [FilesService, FilePlacesService, FileLinksService, PictureSizesService],
  exports: [FilesService, FilePlacesService, FileLinksService, PictureSizesService],
})
export class FilesModule {}
