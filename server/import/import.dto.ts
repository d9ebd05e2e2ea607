import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import type { LeftOut } from "@vennet/core/import/left-out";
import type { ArrivalMend, ArrivalVerdict } from "@vennet/core/import/arrival/arrival-proof";
import type { ArrivalGroup, GroupedArrival, ToldGroup } from "@vennet/core/import/arrival/group-arrival";
import { IsIn, IsOptional, IsString, IsUrl, MaxLength } from "class-validator";
import { BookAnswer } from "../books/books.dto.ts";
import type { Arrival } from "./arrival.entity.ts";

const verdicts: ArrivalVerdict[] = ["intact", "changed", "left-out", "lost", "extra"];

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

  @ApiPropertyOptional({
    enum: ["yes"],
    description: "Whether nothing is kept until its author has looked at it.",
  })
  @IsOptional()
  @IsIn(["yes"])
  review?: "yes";
}

export class KeepRequest {
  @ApiPropertyOptional({ description: "The book's title; else the one that it was brought in with." })
  @IsOptional()
  @IsString()
  @MaxLength(500)
  title?: string;
}

class ArrivedLinkAnswer {
  @ApiProperty()
  words: string;
  @ApiProperty({ description: "Where it leads, as the file says it." })
  href: string;
  @ApiProperty({ type: String, nullable: true, description: "Its place in the file, as “line 12”." })
  where: string | null;
  @ApiProperty()
  reason: string;
}

class ArrivalGroupAnswer implements ArrivalGroup {
  @ApiProperty({ enum: verdicts })
  verdict: ArrivalVerdict;
  @ApiProperty({ description: "What all links of its sort are called." })
  sort: string;
  @ApiProperty({ enum: ["base-address", "files", "places"], nullable: true })
  mend: ArrivalMend | null;
  @ApiProperty()
  count: number;
  @ApiProperty({ type: [ArrivedLinkAnswer], description: "The first of them; the table has all." })
  links: ArrivedLinkAnswer[];
}

class ArrivalCountsAnswer {
  @ApiProperty()
  intact: number;
  @ApiProperty()
  changed: number;
  @ApiProperty()
  "left-out": number;
  @ApiProperty()
  lost: number;
  @ApiProperty()
  extra: number;
}

class LeftOutAnswer implements Omit<LeftOut, "sort" | "href"> {
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

class ToldGroupAnswer implements ToldGroup {
  @ApiProperty()
  sort: string;
  @ApiProperty()
  count: number;
  @ApiProperty({ type: [LeftOutAnswer] })
  items: LeftOutAnswer[];
}

/** A manuscript file compared with what was made of it. */
export class ArrivalAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  fileName: string;
  @ApiProperty()
  createdAt: Date;
  @ApiProperty({
    type: ArrivalCountsAnswer,
    nullable: true,
    description: "Null where the second reader could not read the file.",
  })
  counts: ArrivalCountsAnswer | null;
  @ApiProperty({
    type: [ArrivalGroupAnswer],
    description: "Links that are not as they were, like ones together.",
  })
  groups: ArrivalGroupAnswer[];
  @ApiProperty({ type: [ToldGroupAnswer], description: "What else could not be taken over as it was." })
  told: ToldGroupAnswer[];
}

/** @param arrival with its groups as they are kept */
export function arrivalAnswer({ id, fileName, createdAt, grouped }: Arrival): ArrivalAnswer {
  const { counts, groups, told } = JSON.parse(grouped) as GroupedArrival;
  return { id, fileName, createdAt, counts, groups, told };
}

/** What an import came to. */
export class ImportAnswer {
  @ApiProperty({ type: BookAnswer, nullable: true, description: "Null while it waits to be looked at." })
  book: BookAnswer | null;
  @ApiProperty()
  title: string;
  @ApiProperty({ description: "How many chapters came, and links in them." })
  chapters: number;
  @ApiProperty()
  links: number;
  @ApiProperty()
  arrival: ArrivalAnswer;
}
