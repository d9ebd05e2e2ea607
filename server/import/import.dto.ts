import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import type { LeftOut } from "@vennet/core/import/left-out";
import { IsOptional, IsString, IsUrl, MaxLength } from "class-validator";
import { BookAnswer } from "../books/books.dto.ts";

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

export class LeftOutAnswer implements LeftOut {
  @ApiProperty({
    type: String,
    nullable: true,
    description: "Its place in the file, in words that fit the format, as “line 12”.",
  })
  where: string | null;
  @ApiProperty()
  what: string;
  @ApiProperty()
  why: string;
}

/** What an import came to. */
export class ImportAnswer {
  @ApiProperty()
  book: BookAnswer;
  @ApiProperty({ description: "How many chapters came." })
  chapters: number;
  @ApiProperty({ type: [LeftOutAnswer], description: "What could not be taken over as it was." })
  leftOut: LeftOutAnswer[];
}
