import { Controller, Delete, Get, HttpCode, Sse, type MessageEvent } from "@nestjs/common";
import { ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiProperty, ApiTags } from "@nestjs/swagger";
import { map, type Observable } from "rxjs";
import { OpenJob } from "../access/book.guard.ts";
import { Job } from "./job.entity.ts";
import { JobsService } from "./jobs.service.ts";

export class JobAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ description: "Which room does it, as “export”." })
  kind: string;
  @ApiProperty({ enum: ["waiting", "running", "done", "cancelled", "failed"] })
  state: "waiting" | "running" | "done" | "cancelled" | "failed";
  @ApiProperty()
  done: number;
  @ApiProperty()
  total: number;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "The book that it is about; null until there is one.",
  })
  bookId: string | null;
  @ApiProperty({ description: "What it is at, or why it failed." })
  message: string;
}

/** A job as the interface tells it. */
export function jobAnswer({ id, bookId, kind, state, done, total, message }: Job): JobAnswer {
  return { id, bookId, kind, state, done, total, message };
}

@ApiTags("jobs")
@Controller("jobs/:jobId")
export class JobsController {
  constructor(private readonly jobs: JobsService) {}

  @Get()
  @ApiOkResponse({ type: JobAnswer })
  one(@OpenJob() job: Job): JobAnswer {
    return jobAnswer(job);
  }

  @Sse("events")
  @ApiProduces("text/event-stream")
  @ApiOkResponse({ description: "The job as JSON, at every change until it has ended." })
  events(@OpenJob() job: Job): Observable<MessageEvent> {
    return this.jobs.watch(job).pipe(map((now) => ({ data: jobAnswer(now) })));
  }

  @Delete()
  @HttpCode(204)
  @ApiNoContentResponse()
  async cancel(@OpenJob() job: Job): Promise<void> {
    await this.jobs.cancel(job);
  }
}
