import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { kindNames, type DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { Type } from "class-transformer";
import { IsIn, IsInt, IsString, Matches, Max, MaxLength, Min } from "class-validator";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export const states = ["sound", "moved", "guarded", "broken", "unsure", "unchecked"] as const;
const columns = [
  "position",
  "text",
  "kind",
  "destination",
  "description",
  "chapter",
  "heading",
  "state",
  "checked",
] as const;
export type LedgerColumn = (typeof columns)[number];

/** Which links of the ledger are meant. Whatever is left out narrows nothing. */
export class LedgerFilter {
  @ApiPropertyOptional({
    description: "Words in the link text, destination, description, chapter or heading.",
  })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(500)
  search?: string;

  @ApiPropertyOptional({ enum: kindNames })
  @MayBeLeftOut()
  @IsIn(kindNames)
  kind?: DestinationKind;

  @ApiPropertyOptional({ enum: states })
  @MayBeLeftOut()
  @IsIn(states)
  state?: (typeof states)[number];

  @ApiPropertyOptional({ description: "The id of a chapter." })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(36)
  chapter?: string;

  @ApiPropertyOptional({ description: "A destination to the letter, as the ledger writes it." })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(8000)
  destination?: string;

  @ApiPropertyOptional({ enum: ["yes", "no"], description: "With or without a description." })
  @MayBeLeftOut()
  @IsIn(["yes", "no"])
  described?: "yes" | "no";
}

export class LedgerQuery extends LedgerFilter {
  @ApiPropertyOptional({ enum: columns, default: "position" })
  @MayBeLeftOut()
  @IsIn(columns)
  sort?: LedgerColumn;

  @ApiPropertyOptional({ enum: ["up", "down"], default: "up" })
  @MayBeLeftOut()
  @IsIn(["up", "down"])
  direction?: "up" | "down";

  @ApiPropertyOptional({ default: 0 })
  @MayBeLeftOut()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(1_000_000_000)
  offset?: number;

  @ApiPropertyOptional({ default: 200 })
  @MayBeLeftOut()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(1000)
  limit?: number;
}

export class CsvQuery extends LedgerQuery {
  @ApiPropertyOptional({ description: "Columns divided by commas; all if left out." })
  @MayBeLeftOut()
  @Matches(/^[a-z]+(,[a-z]+)*$/)
  columns?: string;
}

export class LedgerRowAnswer {
  @ApiProperty()
  linkId: string;
  @ApiProperty()
  chapterId: string;
  @ApiProperty()
  chapter: string;
  @ApiProperty()
  heading: string;
  @ApiProperty()
  text: string;
  @ApiProperty({ enum: kindNames })
  kind: DestinationKind;
  @ApiProperty({ description: "To the letter, as links are grouped by it." })
  destination: string;
  @ApiProperty({ description: "As an author reads it: a file's name, a heading's words." })
  destinationName: string;
  @ApiProperty({ type: String, nullable: true })
  description: string | null;
  @ApiProperty({ enum: ["words", "picture", "hotspot", "reference"] })
  coverage: "words" | "picture" | "hotspot" | "reference";
  @ApiProperty({ enum: states })
  state: (typeof states)[number];
  @ApiProperty({ type: String, nullable: true })
  checkedAt: string | null;
}

export class LedgerAnswer {
  @ApiProperty({ description: "How many links match, whatever the page." })
  total: number;
  @ApiProperty({ type: [LedgerRowAnswer] })
  rows: LedgerRowAnswer[];
}

export class LedgerGroupAnswer {
  @ApiProperty({ enum: kindNames })
  kind: DestinationKind;
  @ApiProperty()
  destination: string;
  @ApiProperty()
  destinationName: string;
  @ApiProperty({ enum: states })
  state: (typeof states)[number];
  @ApiProperty()
  count: number;
  @ApiProperty({ type: [String], description: "Up to five of the link texts that lead there." })
  texts: string[];
}
