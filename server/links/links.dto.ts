import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { assertDestination } from "@vennet/core/destination/destination";
import type { Destination } from "@vennet/core/destination/kinds/kinds";
import { Type } from "class-transformer";
import { FoundWords } from "../chapters/found-words.dto.ts";
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  MaxLength,
  Min,
  ValidateBy,
  ValidateNested,
} from "class-validator";
import { LedgerFilter } from "../ledger/ledger.dto.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";
import { Words } from "../http/words.ts";

/** A destination of any kind, as it stands in a link. */
function IsDestination(): PropertyDecorator {
  return ValidateBy({
    name: "isDestination",
    validator: {
      validate: (value: unknown) => whyNoDestination(value) === null,
      defaultMessage: (given) => whyNoDestination(given?.value) ?? "",
    },
  });
}

function whyNoDestination(value: unknown): string | null {
  try {
    assertDestination(value);
    return null;
  } catch (error) {
    return (error as Error).message;
  }
}

const destinationSchema = { type: "object", additionalProperties: true } as const;

export class LinkName {
  @ApiProperty()
  @IsString()
  @MaxLength(36)
  chapterId: string;

  @ApiProperty()
  @IsString()
  @MaxLength(64)
  linkId: string;
}

const editKinds = ["retarget", "host", "base", "remove", "describe", "words", "change"] as const;

export class LinkEdit {
  @ApiProperty({
    enum: editKinds,
    description: "“change” does at once what of destination, text and description is given.",
  })
  @IsIn(editKinds)
  kind: (typeof editKinds)[number];

  @ApiPropertyOptional({
    ...destinationSchema,
    description: "For retarget and change: where the links lead then.",
  })
  @MayBeLeftOut()
  @IsDestination()
  destination?: Destination;

  @ApiPropertyOptional({
    description:
      "For base: the web address from which links to files that were not brought along start (RFC 3986, 5.2).",
  })
  @MayBeLeftOut()
  @IsString()
  @Length(1, 2048)
  base?: string;

  @ApiPropertyOptional({ description: "For host: the host that is replaced, with its port if it has one." })
  @MayBeLeftOut()
  @IsString()
  @Length(1, 255)
  from?: string;

  @ApiPropertyOptional({ description: "For host: the host that takes its place." })
  @MayBeLeftOut()
  @IsString()
  @Length(1, 255)
  to?: string;

  @ApiPropertyOptional({
    type: String,
    nullable: true,
    description: "For describe and change; null takes it away.",
  })
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  description?: string | null;

  @ApiPropertyOptional({
    description: "For words and change: the link text, or the text alternative of what is linked.",
  })
  @MayBeLeftOut()
  @Words(2000, "A link needs words to stand on.")
  text?: string;
}

/** An edit of many links: those that are named, or all that a filter matches. */
export class BulkEditRequest {
  @ApiPropertyOptional({ type: [LinkName] })
  @MayBeLeftOut()
  @IsArray()
  @ArrayMaxSize(20_000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => LinkName)
  links?: LinkName[];

  @ApiPropertyOptional({ type: LedgerFilter })
  @MayBeLeftOut()
  @ValidateNested()
  @Type(() => LedgerFilter)
  matching?: LedgerFilter;

  @ApiProperty({ type: LinkEdit })
  @IsObject()
  @ValidateNested()
  @Type(() => LinkEdit)
  edit: LinkEdit;
}

export class EditPreviewRow extends LinkName {
  @ApiProperty()
  chapter: string;
  @ApiProperty()
  text: string;
  @ApiProperty({ description: "Destination or description as it is." })
  before: string;
  @ApiProperty({ description: "As it will be; empty where it goes." })
  after: string;
}

export class EditPreviewAnswer {
  @ApiProperty({ type: [EditPreviewRow], description: "At most 500 of them." })
  rows: EditPreviewRow[];
  @ApiProperty({ description: "How many links will change." })
  changing: number;
  @ApiProperty({ description: "How many of those asked for stay as they are." })
  unchanged: number;
}

export class SearchRequest {
  @ApiPropertyOptional({ description: "Words to look for." })
  @MayBeLeftOut()
  @IsString()
  @Length(1, 500)
  phrase?: string;

  @ApiPropertyOptional({
    type: [String],
    description: "Or examples of item codes, from which a pattern is made.",
  })
  @MayBeLeftOut()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  examples?: string[];

  @ApiPropertyOptional({
    description: "Or addresses that stand in the text and are no links.",
  })
  @MayBeLeftOut()
  @IsBoolean()
  addresses?: boolean;

  @ApiPropertyOptional({ default: true })
  @MayBeLeftOut()
  @IsBoolean()
  wholeWords?: boolean;

  @ApiPropertyOptional({ default: false })
  @MayBeLeftOut()
  @IsBoolean()
  matchCase?: boolean;

  @ApiPropertyOptional({ description: "End at so many of them." })
  @MayBeLeftOut()
  @IsInt()
  @Min(1)
  limit?: number;

  @ApiPropertyOptional({ description: "Look in this chapter only." })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(36)
  chapterId?: string;
}

export class MentionLinkAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  from: number;
  @ApiProperty()
  to: number;
  @ApiProperty(destinationSchema)
  destination: Record<string, unknown>;
}

export class MentionAnswer {
  @ApiProperty()
  from: number;
  @ApiProperty()
  to: number;
  @ApiProperty()
  text: string;
  @ApiProperty()
  before: string;
  @ApiProperty()
  after: string;
  @ApiProperty()
  inHeading: boolean;
  @ApiProperty({ type: MentionLinkAnswer, nullable: true })
  link: MentionLinkAnswer | null;
  @ApiProperty({ type: String, nullable: true, description: "The place that stands there already." })
  place: string | null;
}

export class ChapterMentionsAnswer {
  @ApiProperty()
  chapterId: string;
  @ApiProperty()
  chapter: string;
  @ApiProperty({ description: "The revision in which the positions are true." })
  revision: number;
  @ApiProperty({ type: [MentionAnswer] })
  mentions: MentionAnswer[];
}

export class SearchAnswer {
  @ApiProperty({ type: String, nullable: true, description: "The pattern that the examples gave." })
  pattern: string | null;
  @ApiProperty({ type: [ChapterMentionsAnswer] })
  chapters: ChapterMentionsAnswer[];
}

export class NewLink extends FoundWords {
  @ApiProperty(destinationSchema)
  @IsDestination()
  destination: Destination;
}

const addKinds = ["mentions", "codes", "addresses"] as const;

export class AddLinksRequest {
  @ApiProperty({ enum: addKinds })
  @IsIn(addKinds)
  kind: (typeof addKinds)[number];

  @ApiPropertyOptional({ description: "The phrase or pattern, for the summary." })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(500)
  of?: string;

  @ApiPropertyOptional({ type: String, nullable: true })
  @IsOptional()
  @IsString()
  @MaxLength(2000)
  description?: string | null;

  @ApiProperty({ type: [NewLink] })
  @IsArray()
  @ArrayMaxSize(20_000)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => NewLink)
  links: NewLink[];
}
