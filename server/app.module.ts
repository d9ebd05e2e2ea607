import { Module, ValidationPipe, type DynamicModule } from "@nestjs/common";
import { APP_FILTER, APP_GUARD, APP_PIPE } from "@nestjs/core";
import { TypeOrmModule } from "@nestjs/typeorm";
import type { ValidationError } from "class-validator";
import { Account } from "./accounts/account.entity.ts";
import { AccountsController } from "./accounts/accounts.controller.ts";
import { AccountsService } from "./accounts/accounts.service.ts";
import { Session } from "./accounts/session.entity.ts";
import { SessionGuard } from "./accounts/session.guard.ts";
import { BooksController } from "./books/books.controller.ts";
import { BooksService } from "./books/books.service.ts";
import { AcceptancesController } from "./checks/acceptances.controller.ts";
import { AcceptancesService } from "./checks/acceptances.service.ts";
import { FindingsController } from "./checks/findings.controller.ts";
import { ReportController } from "./checks/report.controller.ts";
import { FindingsService } from "./checks/findings.service.ts";
import { ChaptersController } from "./chapters/chapters.controller.ts";
import { ChaptersService } from "./chapters/chapters.service.ts";
import { databaseOptions } from "./database/data-source.ts";
import { ProblemFilter } from "./errors/problem.filter.ts";
import { Problem } from "./errors/problem.ts";
import { ExportsController } from "./exports/exports.controller.ts";
import { ExportsService } from "./exports/exports.service.ts";
import { FilesController } from "./files/files.controller.ts";
import { FilesService } from "./files/files.service.ts";
import { DriveController } from "./drive/drive.controller.ts";
import { DriveService } from "./drive/drive.service.ts";
import { HistoryController } from "./history/history.controller.ts";
import { StepsService } from "./history/steps.service.ts";
import { VersionsService } from "./history/versions.service.ts";
import { BulkEditsService } from "./links/bulk-edits.service.ts";
import { LedgerService } from "./links/ledger.service.ts";
import { LinkSearchService } from "./links/link-search.service.ts";
import { LinksController } from "./links/links.controller.ts";
import { HealthController } from "./http/health.controller.ts";
import { Job } from "./jobs/job.entity.ts";
import { JobsController } from "./jobs/jobs.controller.ts";
import { JobsService } from "./jobs/jobs.service.ts";
import { AnswerWriter } from "./reach/answer-writer.ts";
import { Asker } from "./reach/asker.ts";
import { HostGates } from "./reach/host-gates.ts";
import { HostWork } from "./reach/host-work.ts";
import { MailDomains } from "./reach/mail-domains.ts";
import { PlacesController } from "./places/places.controller.ts";
import { PlacesService } from "./places/places.service.ts";
import { PageTitles } from "./reach/page-titles.ts";
import { ReachController } from "./reach/reach.controller.ts";
import { ReachService } from "./reach/reach.service.ts";
import { PlannedRuns } from "./reach/planned-runs.ts";
import { Resolver } from "./reach/resolver.ts";
import { Settings } from "./settings.ts";
import { Workshop } from "./workshop/workshop.ts";

@Module({})
export class AppModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: AppModule,
      imports: [
        TypeOrmModule.forRoot({ ...databaseOptions(settings.databaseUrl), retryAttempts: 0 }),
        TypeOrmModule.forFeature([Account, Session, Job]),
      ],
      controllers: [
        HealthController,
        AccountsController,
        BooksController,
        ChaptersController,
        FilesController,
        JobsController,
        ReachController,
        ExportsController,
        LinksController,
        PlacesController,
        AcceptancesController,
        FindingsController,
        ReportController,
        HistoryController,
        DriveController,
      ],
      providers: [
        { provide: Settings, useValue: settings },
        { provide: APP_GUARD, useClass: SessionGuard },
        { provide: APP_FILTER, useClass: ProblemFilter },
        {
          provide: APP_PIPE,
          useValue: new ValidationPipe({
            whitelist: true,
            forbidNonWhitelisted: true,
            transform: true,
            exceptionFactory: (errors: ValidationError[]) => firstProblem(errors),
          }),
        },
        AccountsService,
        BooksService,
        ChaptersService,
        FilesService,
        JobsService,
        Resolver,
        Asker,
        HostGates,
        MailDomains,
        AnswerWriter,
        HostWork,
        ReachService,
        PlannedRuns,
        Workshop,
        ExportsService,
        LedgerService,
        PlacesService,
        AcceptancesService,
        FindingsService,
        LinkSearchService,
        BulkEditsService,
        StepsService,
        VersionsService,
        PageTitles,
        DriveService,
      ],
    };
  }
}

function firstProblem(errors: ValidationError[]): Problem {
  const first = errors[0];
  const message = Object.values(first?.constraints ?? {})[0] ?? "The request is not as it should be.";
  return new Problem(400, "invalid", message, first?.property);
}
