import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { stepKinds, type StepKind } from "./book-step.entity.ts";
import { IsObject } from "class-validator";
import { AsSent } from "../http/request-pipe.ts";
import { Words } from "../http/words.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export class VersionListingAnswer {
  @ApiProperty({ type: String, nullable: true, description: "Null for the chapter as it is now." })
  id: string | null;
  @ApiProperty()
  revision: number;
  @ApiProperty()
  title: string;
  @ApiProperty()
  words: number;
  @ApiProperty()
  links: number;
  @ApiProperty({ type: String, nullable: true, description: "The author's name for it." })
  name: string | null;
  @ApiProperty({ type: String, nullable: true })
  createdAt: string | null;
}

export class VersionAnswer extends VersionListingAnswer {
  @ApiProperty({ type: "object", additionalProperties: true })
  document: Record<string, unknown>;
}

export class NameVersionRequest {
  @ApiProperty()
  @Words(200, "Give the version a name of at most 200 characters.")
  name: string;

  @ApiPropertyOptional({
    type: "object",
    additionalProperties: true,
    description: "A text to set aside; the chapter as it is if left out.",
  })
  @MayBeLeftOut()
  @IsObject()
  @AsSent()
  document?: Record<string, unknown>;
}

export class ChangedChapterAnswer {
  @ApiProperty()
  chapterId: string;
  @ApiProperty({ description: "How many of its links the step changed." })
  links: number;
}

export class StepAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: stepKinds })
  kind: StepKind;
  @ApiProperty()
  summary: string;
  @ApiProperty()
  createdAt: string;
  @ApiProperty({ type: String, nullable: true })
  undoneAt: string | null;
  @ApiProperty({ type: [ChangedChapterAnswer] })
  chapters: ChangedChapterAnswer[];
}

export class UndoneAnswer {
  @ApiProperty({ type: StepAnswer })
  step: StepAnswer;
  @ApiProperty({ description: "Links that are as they were." })
  undone: number;
  @ApiProperty({ description: "Links that were changed since, and stay." })
  left: number;
}
