import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsOptional, IsString, IsUrl, Length, Matches, MaxLength } from "class-validator";

/** The tags of BCP 47 that begin with a language code of ISO 639. */
const languageTag = /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/;

export class NewBookRequest {
  @ApiProperty()
  @IsString()
  @Length(1, 500, { message: "Give the book a title." })
  title: string;

  @ApiPropertyOptional({ description: "A BCP 47 tag, as “en” or “de”." })
  @IsOptional()
  @Matches(languageTag, { message: "A language is written as “en”, “de” or “en-GB”." })
  language?: string;
}

export class ChangeBookRequest {
  @ApiPropertyOptional()
  @IsOptional()
  @IsString()
  @Length(1, 500, { message: "Give the book a title." })
  title?: string;

  @ApiPropertyOptional()
  @IsOptional()
  @IsString()
  @Length(1, 200, { message: "Give the author's name." })
  author?: string;

  @ApiPropertyOptional()
  @IsOptional()
  @Matches(languageTag, { message: "A language is written as “en”, “de” or “en-GB”." })
  language?: string;
}

export class ImportRequest {
  @ApiPropertyOptional({
    description: "The book's title; else the first level-1 heading, else the file's name.",
  })
  @IsOptional()
  @IsString()
  @MaxLength(500)
  title?: string;

  @ApiPropertyOptional({ description: "The web address from which relative links start." })
  @IsOptional()
  @IsUrl(
    { protocols: ["http", "https"], require_protocol: true, require_tld: false },
    {
      message:
        "The address from which relative links start is a whole web address, as https://tides.example/guide/.",
    },
  )
  baseAddress?: string;
}

/** How many links of a book are in each state. Links that are not asked count as unchecked. */
export class LinkStatesAnswer {
  @ApiProperty()
  sound: number;
  @ApiProperty()
  moved: number;
  @ApiProperty()
  guarded: number;
  @ApiProperty()
  broken: number;
  @ApiProperty()
  unsure: number;
  @ApiProperty()
  unchecked: number;
}

export class BookAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  title: string;
  @ApiProperty()
  author: string;
  @ApiProperty()
  language: string;
  @ApiProperty()
  modifiedAt: string;
  @ApiProperty()
  chapters: number;
  @ApiProperty()
  words: number;
  @ApiProperty()
  links: number;
  @ApiProperty({ description: "The web links by state." })
  webLinks: LinkStatesAnswer;
}

export class LeftOutAnswer {
  @ApiProperty({ type: Number, nullable: true, description: "The line of the file, from 1." })
  line: number | null;
  @ApiProperty()
  what: string;
  @ApiProperty()
  why: string;
}

export class ImportAnswer {
  @ApiProperty()
  book: BookAnswer;
  @ApiProperty({ type: [LeftOutAnswer], description: "What could not be taken over as it was." })
  leftOut: LeftOutAnswer[];
}
