import { Controller, Get, HttpCode, Post, Query, Res } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { reportPage } from "@vennet/core/checks/report";
import { stringify } from "csv-stringify/sync";
import type { Response } from "express";
import { OpenBook } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { jobAnswer, JobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { ReachService } from "../reach/reach.service.ts";
import { FindingsService } from "./findings.service.ts";
import { ChecksAnswer, ReportQuery } from "./report.dto.ts";

/** Checks for scripts, and the report of a book's findings. */
@ApiTags("checks")
@Controller("books/:bookId")
export class ReportController {
  constructor(
    private readonly findings: FindingsService,
    private readonly reach: ReachService,
    private readonly jobs: JobsService,
  ) {}

  @Post("checks")
  @HttpCode(202)
  @ApiOkResponse({ type: JobAnswer, description: "A run over the destinations that are due has begun." })
  async check(@OpenBook() book: Book): Promise<JobAnswer> {
    return jobAnswer(await this.reach.begin(book.id, { which: "due" }));
  }

  @Get("checks")
  @ApiOkResponse({
    type: ChecksAnswer,
    description: "Whether the book may go out, and a script's exit state.",
  })
  async verdict(@OpenBook() book: Book): Promise<ChecksAnswer> {
    const [findings, running, runs] = await Promise.all([
      this.findings.list(book),
      this.jobs.unfinished(book.id, "reach"),
      this.reach.runs(book.id),
    ]);
    const open = findings.filter(({ accepted }) => accepted === null);
    const count = (severity: string): number => open.filter((one) => one.severity === severity).length;
    const [stop, fix, consider] = [count("stop"), count("fix"), count("consider")];
    return {
      exitState: stop > 0 ? 2 : fix > 0 ? 1 : 0,
      stop,
      fix,
      consider,
      accepted: findings.length - open.length,
      running: running ? jobAnswer(running) : null,
      lastRun: runs.at(-1) ?? null,
    };
  }

  @Get("report")
  @ApiOkResponse({ description: "All findings as a web page, as CSV or as JSON." })
  async report(
    @OpenBook() book: Book,
    @Query() { as }: ReportQuery,
    @Res() response: Response,
  ): Promise<void> {
    const [findings, runs] = await Promise.all([this.findings.list(book), this.reach.runs(book.id)]);
    const madeAt = new Date().toISOString();
    const { title, author, language } = book;
    const report = { title, author, language, madeAt, findings, runs };
    if (as === "json") return void response.json(report);
    if (as === "page") {
      // It needs nothing from anywhere.
      response.setHeader(
        "content-security-policy",
        "default-src 'none'; style-src 'unsafe-inline'; img-src data:",
      );
      return void response.type("html").send(reportPage(report));
    }
    const columns = [
      "severity",
      "rule",
      "title",
      "chapter",
      "text",
      "address",
      "message",
      "accepted",
      "source",
    ] as const;
    response
      .type("csv")
      .setHeader("content-disposition", 'attachment; filename="findings.csv"')
      .send(stringify(findings, { header: true, columns: [...columns], bom: true, escape_formulas: true }));
  }
}
