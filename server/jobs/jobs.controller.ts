import { Controller, Delete, Get, HttpCode, Param, Sse, type MessageEvent } from "@nestjs/common";
import { ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiProperty, ApiTags } from "@nestjs/swagger";
import { map, type Observable } from "rxjs";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { BooksService } from "../books/books.service.ts";
import { notFound } from "../errors/problem.ts";
import { Job } from "./job.entity.ts";
import { JobsService } from "./jobs.service.ts";

export class JobAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: ["reach", "export"] })
  kind: "reach" | "export";
  @ApiProperty({ enum: ["waiting", "running", "done", "cancelled", "failed"] })
  state: "waiting" | "running" | "done" | "cancelled" | "failed";
  @ApiProperty()
  done: number;
  @ApiProperty()
  total: number;
  @ApiProperty({ description: "What it is at, or why it failed." })
  message: string;
}

export function jobAnswer({ id, kind, state, done, total, message }: Job): JobAnswer {
  return { id, kind, state, done, total, message };
}

@ApiTags("jobs")
@Controller("jobs/:jobId")
export class JobsController {
  constructor(
    private readonly jobs: JobsService,
    private readonly books: BooksService,
  ) {}

  @Get()
  @ApiOkResponse({ type: JobAnswer })
  async one(@SignedIn() account: Account, @Param("jobId") id: string): Promise<JobAnswer> {
    return jobAnswer(await this.own(account, id));
  }

  @Sse("events")
  @ApiProduces("text/event-stream")
  @ApiOkResponse({ description: "The job as JSON, at every change until it has ended." })
  async events(@SignedIn() account: Account, @Param("jobId") id: string): Promise<Observable<MessageEvent>> {
    return this.jobs.watch(await this.own(account, id)).pipe(map((job) => ({ data: jobAnswer(job) })));
  }

  @Delete()
  @HttpCode(204)
  @ApiNoContentResponse()
  async cancel(@SignedIn() account: Account, @Param("jobId") id: string): Promise<void> {
    await this.jobs.cancel(await this.own(account, id));
  }

  private async own(account: Account, id: string): Promise<Job> {
    const job = await this.jobs.find(id);
    if (!job) throw notFound("job");
    await this.books.own(account, job.bookId);
    return job;
  }
}
