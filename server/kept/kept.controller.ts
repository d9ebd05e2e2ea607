import { Body, Controller, Get, HttpCode, Post } from "@nestjs/common";
import { ApiOkResponse, ApiPropertyOptional, ApiTags } from "@nestjs/swagger";
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsString, MaxLength } from "class-validator";
import { OpenBook, OpenManuscript } from "../access/book.guard.ts";
import { Book } from "../books/book.entity.ts";
import { jobAnswer, JobAnswer } from "../jobs/jobs.controller.ts";
import { JobsService } from "../jobs/jobs.service.ts";
import { KeptService } from "./kept.service.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export class KeepCopiesRequest {
  @ApiPropertyOptional({ type: [String], description: "These destinations alone; all pages if left out." })
  @MayBeLeftOut()
  @IsArray()
  @ArrayNotEmpty({ message: "Name at least one address, or leave the list out to keep all." })
  @ArrayMaxSize(5000)
  @IsString({ each: true })
  @MaxLength(8000, { each: true })
  addresses?: string[];
}

/** Copies of linked pages that travel with the book. */
@ApiTags("reach")
@Controller("books/:bookId/kept-copies")
export class KeptController {
  constructor(
    private readonly kept: KeptService,
    private readonly jobs: JobsService,
  ) {}

  @Post()
  @HttpCode(202)
  @ApiOkResponse({ type: JobAnswer })
  async keep(@OpenManuscript() book: Book, @Body() { addresses }: KeepCopiesRequest): Promise<JobAnswer> {
    return jobAnswer(await this.kept.begin(book.id, addresses));
  }

  @Get()
  @ApiOkResponse({ type: [JobAnswer], description: "The latest job that kept copies, if there was one." })
  async list(@OpenBook() book: Book): Promise<JobAnswer[]> {
    const latest = await this.jobs.latest(book.id, "keep-copies");
    return latest ? [jobAnswer(latest)] : [];
  }
}
