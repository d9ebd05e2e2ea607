import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { Type } from "class-transformer";
import { ArrayMaxSize, IsArray, IsObject, IsString, MaxLength, ValidateNested } from "class-validator";
import { PageChangeAnswer } from "../reach/reach.dto.ts";
import { LinkName } from "../links/links.dto.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

class MendAnswer {
  @ApiProperty({ description: "What there is now: an address, words, or a description." })
  before: string;
  @ApiProperty({ description: "What there is then; empty where it is taken out." })
  after: string;
}

export class FindingAnswer {
  @ApiProperty()
  rule: string;
  @ApiProperty({ description: "What the rule finds, in a few words." })
  title: string;
  @ApiProperty({ enum: ["stop", "fix", "consider"] })
  severity: "stop" | "fix" | "consider";
  @ApiProperty({ description: "Where the rule comes from." })
  source: string;
  @ApiProperty({ description: "What is wrong here, and what to do." })
  message: string;
  @ApiProperty({ description: "The id of what it is about." })
  subject: string;
  @ApiProperty({ type: String, nullable: true, description: "Null for what is about the book." })
  chapterId: string | null;
  @ApiProperty({ type: String, nullable: true })
  chapter: string | null;
  @ApiProperty({ type: String, nullable: true, description: "The link text, where it is about a link." })
  text: string | null;
  @ApiProperty({ description: "The words before it in its paragraph, or the words that stand there." })
  before: string;
  @ApiProperty()
  after: string;
  @ApiProperty({ type: String, nullable: true, description: "Where the link leads." })
  address: string | null;
  @ApiProperty({ type: MendAnswer, nullable: true, description: "What one press changes." })
  mend: MendAnswer | null;
  @ApiProperty({
    description: "Whether that is right without a look at it, so that it is made with all others.",
  })
  isSure: boolean;
  @ApiProperty({
    type: PageChangeAnswer,
    nullable: true,
    description: "What the linked page was and is called, where it is another now.",
  })
  change: PageChangeAnswer | null;
  @ApiProperty({ type: String, nullable: true, description: "Why it may stay, where it was accepted." })
  accepted: string | null;
}

/** Puts right what a rule has found: at the links that are named, or at all. */
export class MendRequest {
  @ApiProperty()
  @IsString()
  @MaxLength(40)
  rule: string;

  @ApiPropertyOptional({
    type: [LinkName],
    description: "All that the rule has found and is sure of, if left out.",
  })
  @MayBeLeftOut()
  @IsArray()
  @ArrayMaxSize(50_000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => LinkName)
  links?: LinkName[];
}
