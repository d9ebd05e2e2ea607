import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsIn } from "class-validator";
import { JobAnswer } from "../jobs/jobs.controller.ts";
import { RunAnswer } from "../reach/reach.dto.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export class ReportQuery {
  @ApiPropertyOptional({ enum: ["page", "csv", "json"] })
  @MayBeLeftOut()
  @IsIn(["page", "csv", "json"])
  as: "page" | "csv" | "json" = "page";
}

export class ChecksAnswer {
  @ApiProperty({ description: "0: nothing to fix; 1: something to fix; 2: something stops the export." })
  exitState: 0 | 1 | 2;
  @ApiProperty()
  stop: number;
  @ApiProperty()
  fix: number;
  @ApiProperty()
  consider: number;
  @ApiProperty()
  accepted: number;
  @ApiProperty({ type: JobAnswer, nullable: true, description: "The run that is under way." })
  running: JobAnswer | null;
  @ApiProperty({ type: RunAnswer, nullable: true })
  lastRun: RunAnswer | null;
}
