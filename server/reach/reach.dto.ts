import { kindNames, type DestinationKind } from "@vennet/core/destination/kinds/kinds";
import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { ArrayMaxSize, ArrayNotEmpty, IsArray, IsIn, IsString, MaxLength } from "class-validator";
import { LinkStatesAnswer } from "../books/books.dto.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

const states = ["sound", "moved", "guarded", "broken", "unsure", "unchecked"] as const;

export class HopAnswer {
  @ApiProperty({ enum: ["HEAD", "GET"] })
  method: "HEAD" | "GET";
  @ApiProperty()
  address: string;
  @ApiProperty({ type: Number, nullable: true })
  status: number | null;
  @ApiProperty({ type: String, nullable: true })
  location: string | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "The code of the failure, where no answer came.",
  })
  failure: string | null;
  @ApiProperty({ description: "Milliseconds to the answer's head." })
  ms: number;
}

export class DestinationUseAnswer {
  @ApiProperty()
  linkId: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  chapterId: string;
  @ApiProperty()
  chapter: string;
}

class PageCalledAnswer {
  @ApiProperty({ type: String, nullable: true })
  title: string | null;
  @ApiProperty({ type: [String], description: "The first of its headings." })
  headings: readonly string[];
}

export class PageChangeAnswer {
  @ApiProperty({
    enum: ["page", "part", "hands"],
    description:
      "The page is another, only the part that the address names, or so much that others may have it now.",
  })
  what: "page" | "part" | "hands";
  @ApiProperty({ type: PageCalledAnswer })
  then: PageCalledAnswer;
  @ApiProperty({ type: PageCalledAnswer })
  now: PageCalledAnswer;
}

export class DestinationAnswer {
  @ApiProperty({ description: "The address as the manuscript has it." })
  address: string;
  @ApiProperty({ enum: kindNames })
  kind: DestinationKind;
  @ApiProperty({ enum: states })
  state: (typeof states)[number];
  @ApiProperty({ description: "Why it is in this state, in words." })
  reason: string;
  @ApiProperty({ type: String, nullable: true, description: "Why it is in this state, as a code." })
  code: string | null;
  @ApiProperty({ type: String, nullable: true })
  movedTo: string | null;
  @ApiProperty({ type: String, nullable: true, description: "What the page calls itself." })
  title: string | null;
  @ApiProperty({ type: String, nullable: true, description: "The https address that answers as well." })
  secure: string | null;
  @ApiProperty({ type: String, nullable: true, description: "Where asking ended, if at another address." })
  endsAt: string | null;
  @ApiProperty({ type: String, nullable: true, description: "The media type of what came." })
  type: string | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "When its certificate ends, where that is soon.",
  })
  certificateEnds: string | null;
  @ApiProperty({
    type: PageChangeAnswer,
    nullable: true,
    description: "What is another of the page than when it was linked.",
  })
  change: PageChangeAnswer | null;
  @ApiProperty({ type: String, nullable: true, description: "When that was first seen." })
  changedAt: string | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "When somebody looked at what asking cannot judge, and found it well.",
  })
  lookedAt: string | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "The companion file that is a copy of the page.",
  })
  keptCopy: string | null;
  @ApiProperty({ type: String, nullable: true, description: "When that was taken." })
  keptAt: string | null;
  @ApiProperty({ type: String, nullable: true })
  checkedAt: string | null;
  @ApiProperty({ type: String, nullable: true, description: "Since when it has been in this state." })
  since: string | null;
  @ApiProperty({ type: String, nullable: true })
  lastSoundAt: string | null;
  @ApiProperty({ type: [HopAnswer] })
  hops: HopAnswer[];
  @ApiProperty({ type: [DestinationUseAnswer] })
  uses: DestinationUseAnswer[];
}

export class DestinationsQuery {
  @ApiPropertyOptional({
    description:
      "The id of a chapter: only where its links lead, links elsewhere that have the same words, and the emails of the book.",
  })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(36)
  chapter?: string;
}

export class TitleQuery {
  @ApiProperty({ description: "A web address." })
  @IsString()
  @MaxLength(8000)
  address: string;
}

export class TitleAnswer {
  @ApiProperty({ type: String, nullable: true, description: "Null where the page does not tell one." })
  title: string | null;
}

/** What a run asks. */
export class ReachRequest {
  @ApiPropertyOptional({ enum: ["all", "due"], description: "`due` leaves out what was answered lately." })
  @MayBeLeftOut()
  @IsIn(["all", "due"])
  which?: "all" | "due";

  @ApiPropertyOptional({ type: [String], description: "These destinations alone." })
  @MayBeLeftOut()
  @IsArray()
  @ArrayNotEmpty({ message: "Name at least one address, or leave the list out to ask all." })
  @ArrayMaxSize(5000)
  @IsString({ each: true })
  @MaxLength(8000, { each: true })
  addresses?: string[];
}

export class HistoryQuery {
  @ApiProperty({ description: "A destination of the book." })
  @IsString()
  @MaxLength(8000)
  address: string;
}

/** A destination of the book, of which its author says something. */
export class DestinationRequest {
  @ApiProperty({ description: "The address as the manuscript has it." })
  @IsString()
  @MaxLength(8000)
  address: string;
}

export class HistoryAnswer {
  @ApiProperty({ enum: states })
  state: (typeof states)[number];
  @ApiProperty()
  reason: string;
  @ApiProperty()
  checkedAt: string;
}

export class RunAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  startedAt: string;
  @ApiProperty()
  endedAt: string;
  @ApiProperty({ description: "How many pages and emails were asked, each once." })
  asked: number;
  @ApiProperty({ type: LinkStatesAnswer, description: "The states of all destinations when it ended." })
  counts: LinkStatesAnswer;
  @ApiProperty({ description: "Destinations that broke since they were asked before." })
  newlyBroken: number;
  @ApiProperty({ description: "Destinations that had been broken and are well again." })
  wellAgain: number;
}
