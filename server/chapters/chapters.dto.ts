import { chapterRoles, rolesInOrder, type ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { ArrayMaxSize, IsArray, IsIn, IsInt, IsObject, IsString, Min } from "class-validator";
import { AsSent } from "../http/request-pipe.ts";
import { Words } from "../http/words.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

export class NewChapterRequest {
  @ApiProperty()
  @Words(1000, "Give the chapter a title.")
  title: string;

  @ApiPropertyOptional({ description: "Where it goes, counted from 0; at the end if left out." })
  @MayBeLeftOut()
  @IsInt()
  @Min(0)
  position?: number;

  @ApiPropertyOptional({
    enum: chapterRoles,
    description:
      "An unnumbered chapter carries no number, a part is the title page of the chapters behind it, a companion page stands outside the reading order; a chapter if left out.",
  })
  @MayBeLeftOut()
  @IsIn(chapterRoles)
  role?: ChapterRole;

  @ApiPropertyOptional({
    type: "object",
    additionalProperties: true,
    description: "Its document; empty if left out.",
  })
  @MayBeLeftOut()
  @IsObject()
  @AsSent()
  document?: Record<string, unknown>;
}

export class SaveChapterRequest {
  @ApiProperty({ description: "The revision that the document was made from." })
  @IsInt()
  @Min(1)
  revision: number;

  @ApiProperty({ type: "object", additionalProperties: true })
  @IsObject()
  @AsSent()
  document: Record<string, unknown>;
}

export class ChangeChapterRequest {
  @ApiPropertyOptional()
  @MayBeLeftOut()
  @Words(1000, "Give the chapter a title.")
  title?: string;

  @ApiPropertyOptional({
    enum: rolesInOrder,
    description:
      "What it is in the reading order; companion pages stand outside of that, and stay what they are.",
  })
  @MayBeLeftOut()
  @IsIn(rolesInOrder)
  role?: (typeof rolesInOrder)[number];
}

export class OrderRequest {
  @ApiProperty({ type: [String], description: "The ids of all chapters, in their new order." })
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsString({ each: true })
  chapters: string[];
}

export class ChapterListingAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  title: string;
  @ApiProperty({ enum: chapterRoles })
  role: ChapterRole;
  @ApiProperty()
  revision: number;
  @ApiProperty()
  words: number;
  @ApiProperty()
  links: number;
  @ApiProperty({ description: "Whether there is more to it than its title." })
  written: boolean;
}

export class ChapterAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  title: string;
  @ApiProperty({ enum: chapterRoles })
  role: ChapterRole;
  @ApiProperty()
  revision: number;
  @ApiProperty({ type: "object", additionalProperties: true })
  document: Record<string, unknown>;
}

/** How often a chapter was saved, for windows that have it open. */
export class ChapterRevisionAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  title: string;
  @ApiProperty()
  revision: number;
}

export class SavedAnswer {
  @ApiProperty()
  revision: number;
}

export class ChapterSavedAnswer extends SavedAnswer {
  @ApiProperty({
    description: "Whether links or places of the book are others than before; else words alone are.",
  })
  changesLinks: boolean;
}
