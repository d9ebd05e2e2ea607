import { Module, type DynamicModule } from "@nestjs/common";
import { APP_FILTER, APP_PIPE } from "@nestjs/core";
import { AccessModule } from "./access/access.module.ts";
import { AccountsModule } from "./accounts/accounts.module.ts";
import { BooksModule } from "./books/books.module.ts";
import { ChaptersModule } from "./chapters/chapters.module.ts";
import { ChecksModule } from "./checks/checks.module.ts";
import { DriveModule } from "./drive/drive.module.ts";
import { EverythingModule } from "./everything/everything.module.ts";
import { ExportsModule } from "./exports/exports.module.ts";
import { FilesModule } from "./files/files.module.ts";
import { FinishedModule } from "./finished/finished.module.ts";
import { FontsModule } from "./fonts/fonts.module.ts";
import { HistoryModule } from "./history/history.module.ts";
import { ImportModule } from "./import/import.module.ts";
import { JobsModule } from "./jobs/jobs.module.ts";
import { KeptModule } from "./kept/kept.module.ts";
import { LedgerModule } from "./ledger/ledger.module.ts";
import { LinksModule } from "./links/links.module.ts";
import { OperatingModule } from "./operating/operating.module.ts";
import { PlacesModule } from "./places/places.module.ts";
import { ReachModule } from "./reach/reach.module.ts";
import { ShelfModule } from "./shelf/shelf.module.ts";
import { databaseModule } from "./database/database.module.ts";
import { ProblemFilter } from "./errors/problem.filter.ts";
import { RequestPipe } from "./http/request-pipe.ts";
import { SettingsModule } from "./settings.module.ts";
import type { Settings } from "./settings.ts";

/** The whole server: a module for each room, and what stands before all of their routes. */
@Module({})
export class AppModule {
  /** The server with these settings. */
  static with(settings: Settings): DynamicModule {
    return {
      module: AppModule,
      imports: [
        SettingsModule.with(settings),
        databaseModule(settings.databaseUrl),
        AccessModule,
        AccountsModule,
        BooksModule,
        ChaptersModule,
        ChecksModule,
        DriveModule,
        EverythingModule,
        ExportsModule,
        FilesModule,
        FinishedModule,
        FontsModule,
        HistoryModule,
        ImportModule,
        JobsModule,
        KeptModule,
        LedgerModule,
        LinksModule,
        OperatingModule,
        PlacesModule,
        ReachModule,
        ShelfModule,
      ],
      providers: [
        { provide: APP_FILTER, useClass: ProblemFilter },
        {
          provide: APP_PIPE,
          useClass: RequestPipe,
        },
      ],
    };
  }
}
