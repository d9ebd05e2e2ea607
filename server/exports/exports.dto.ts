import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { kindNames } from "@vennet/core/destination/kinds/kinds";
import type { LinkVerdict } from "@vennet/core/proof/compare";
import { exportFormats, type ExportFormat } from "@vennet/core/publish/formats/formats";
import type { ExportWarning } from "@vennet/core/publish/export-warning";
import type { PlannedKind } from "@vennet/core/publish/formats/format";
import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsObject,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from "class-validator";
import { ExportChoicesShape } from "./export-choices.dto.ts";
import { AsSent } from "../http/request-pipe.ts";

const verdicts: LinkVerdict[] = [
  "intact",
  "missing",
  "other-destination",
  "other-words",
  "other-description",
  "dead-end",
  "shifted",
  "cut",
  "covered",
  "left-out",
];

const warningCodes: ExportWarning["code"][] = [
  "letter",
  "picture",
  "page-list",
  "gap",
  "picture-alternative",
];

export class ExportWarningAnswer implements ExportWarning {
  @ApiProperty({ enum: warningCodes })
  code: ExportWarning["code"];
  @ApiProperty({ type: String, nullable: true })
  chapter: string | null;
  @ApiProperty()
  message: string;
}

export class DifferingStepShape {
  @ApiProperty({ description: "Where the link stands, as the proof tells it." })
  @IsString()
  @MaxLength(1_000)
  where: string;
  @ApiProperty()
  @IsString()
  @MaxLength(1_000)
  text: string;
  @ApiProperty({ description: "In what it differs from what is intended." })
  @IsString()
  @MaxLength(1_000)
  difference: string;
}

/** What walking the links of an exported file in a reader came to. */
export class WalkRequest {
  @ApiProperty()
  @IsInt()
  @Min(0)
  @Max(1_000_000)
  walked: number;
  @ApiProperty({ type: [DifferingStepShape] })
  @IsArray()
  @ArrayMaxSize(5_000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => DifferingStepShape)
  differing: DifferingStepShape[];
}

export class WalkAnswer extends WalkRequest {
  @ApiProperty()
  walkedAt: string;
}

export class ExportListingAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: exportFormats })
  format: ExportFormat;
  @ApiProperty({ type: ExportChoicesShape })
  options: ExportChoicesShape;
  @ApiProperty({ type: [ExportWarningAnswer], description: "What could not go into it as it is." })
  warnings: ExportWarningAnswer[];
  @ApiProperty()
  fileName: string;
  @ApiProperty({ description: "Bytes." })
  size: number;
  @ApiProperty({ description: "Milliseconds that it took to make and prove." })
  tookMs: number;
  @ApiProperty({ description: "How often the chapters of its text had been saved." })
  revision: number;
  @ApiProperty({ description: "When its text was last changed." })
  textAt: string;
  @ApiProperty()
  createdAt: string;
  @ApiProperty({
    description: "Whether every link of the manuscript is intact in the file, and none is extra.",
  })
  complete: boolean;
  @ApiProperty()
  intact: number;
  @ApiProperty()
  total: number;
  @ApiProperty()
  extra: number;
  @ApiProperty({ description: "Of the links that follow from the text by themselves, how many are wrong." })
  madeWrong: number;
  @ApiProperty({
    description: "How much else of the file does something to links: lists that lead astray, scripts.",
  })
  faults: number;
  @ApiProperty({
    type: WalkAnswer,
    nullable: true,
    description: "What walking its links came to, the last time.",
  })
  walk: WalkAnswer | null;
}

export class ProofRowAnswer {
  @ApiProperty()
  linkId: string;
  @ApiProperty()
  chapter: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  destination: string;
  @ApiProperty({ description: "As an author reads it: a file's name, a heading's words." })
  destinationName: string;
  @ApiProperty({ enum: verdicts })
  verdict: LinkVerdict;
  @ApiProperty({ type: String, nullable: true, description: "What a screen reader is told besides." })
  description: string | null;
  @ApiProperty({ type: String, nullable: true, enum: ["address", "place", "file"] })
  leadsTo: "address" | "place" | "file" | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "The address, place or file that the exported file should lead to.",
  })
  expected: string | null;
  @ApiProperty({ type: String, nullable: true, description: "The words that ought to stand where it lands." })
  landing: string | null;
  @ApiProperty({ type: [String] })
  found: string[];
  @ApiProperty({ type: String, nullable: true })
  note: string | null;
}

export class ExtraLinkAnswer {
  @ApiProperty()
  text: string;
  @ApiProperty()
  destination: string;
  @ApiProperty()
  where: string;
}

export class FaultAnswer {
  @ApiProperty()
  where: string;
  @ApiProperty()
  what: string;
}

export class ExportAnswer extends ExportListingAnswer {
  @ApiProperty({ type: Number, nullable: true })
  pages: number | null;
  @ApiProperty({ description: "Links that the format has by itself: its contents list, numbers of notes." })
  apparatus: number;
  @ApiProperty({
    description:
      "Links that follow from the text by themselves: ways to notes and back, signposts, return links.",
  })
  made: number;
  @ApiProperty({ type: [ProofRowAnswer], description: "Those links, each with its verdict." })
  madeRows: ProofRowAnswer[];
  @ApiProperty({ type: [ProofRowAnswer] })
  rows: ProofRowAnswer[];
  @ApiProperty({ type: [ExtraLinkAnswer] })
  extraLinks: ExtraLinkAnswer[];
  @ApiProperty({ type: [FaultAnswer], description: "What else of the file does something to links." })
  faultsFound: FaultAnswer[];
}

/** Something that is told before an export, with where it stands; null where it is about the whole book. */
class ForeseenAnswer {
  @ApiProperty({ type: String, nullable: true, description: "The chapter's title." })
  chapter: string | null;
  @ApiProperty({ type: String, nullable: true })
  chapterId: string | null;
  @ApiProperty({ type: Number, nullable: true, description: "Where it begins in the chapter's document." })
  from: number | null;
  @ApiProperty({ type: Number, nullable: true, description: "Where it ends." })
  to: number | null;
  @ApiProperty()
  message: string;
}

class MendNameAnswer {
  @ApiProperty({ description: "The rule that mends it." })
  rule: string;
  @ApiProperty()
  linkId: string;
}

export class ObstacleAnswer extends ForeseenAnswer {
  @ApiProperty()
  code: string;
  @ApiPropertyOptional({ type: MendNameAnswer, description: "What mends it by one press." })
  mend?: MendNameAnswer;
}

export class LostLinkAnswer {
  @ApiProperty()
  chapter: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  reason: string;
}

export class PlannedLinksAnswer {
  @ApiProperty({
    enum: [...kindNames, "shared", "area", "reference", "note", "signpost"],
  })
  kind: PlannedKind;
  @ApiProperty()
  count: number;
  @ApiProperty({ description: "What the export makes of them." })
  becomes: string;
  @ApiProperty({ type: [LostLinkAnswer], description: "Those that become words." })
  lost: LostLinkAnswer[];
}

export class ForeseenChangeAnswer extends ForeseenAnswer {
  @ApiProperty({ enum: warningCodes })
  code: ExportWarning["code"];
}

/** What is known before an export: what stops it, and what becomes of every kind of link. */
export class PreflightAnswer {
  @ApiProperty({ type: [ObstacleAnswer] })
  obstacles: ObstacleAnswer[];
  @ApiProperty({
    type: [ForeseenChangeAnswer],
    description: "What goes out otherwise than it stands in the text.",
  })
  changes: ForeseenChangeAnswer[];
  @ApiProperty({ type: [PlannedLinksAnswer] })
  links: PlannedLinksAnswer[];
  @ApiProperty({ description: "Whether there is a PDF whose pages an e-book can tell." })
  hasPages: boolean;
}

export class OpenTextRequest {
  @ApiProperty({
    type: "object",
    additionalProperties: true,
    description: "The chapter's text as it is now.",
  })
  @IsObject()
  @AsSent()
  document: Record<string, unknown>;
}
