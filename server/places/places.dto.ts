import type { SignpostList } from "@vennet/core/manuscript/attributes";
import { chapterRoles, type ChapterRole } from "@vennet/core/manuscript/chapter-role";
import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsString, MaxLength } from "class-validator";
import { Words } from "../http/words.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

class SignpostListShape implements SignpostList {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: ["contents", "questions", "figures", "tables", "anchors"] })
  of: SignpostList["of"];
  @ApiProperty({ enum: ["book", "chapter", "section"] })
  scope: SignpostList["scope"];
  @ApiProperty({ type: String, nullable: true })
  section: string | null;
  @ApiProperty()
  depth: number;
  @ApiProperty({ type: [String] })
  anchors: string[];
  @ApiProperty()
  heading: string;
  @ApiProperty({ type: String, nullable: true })
  returnWords: string | null;
}

const kinds = ["title", "heading", "anchor", "note", "figure", "table", "signposts"] as const;

/** A place that is not in the book any more. */
export class GonePlaceAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ description: "What it was called." })
  name: string;
}

export class NewPlaceAnswer {
  @ApiProperty()
  id: string;
}

export class PlaceAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ enum: kinds })
  kind: (typeof kinds)[number];
  @ApiProperty({ type: Number, nullable: true, description: "0 for a title, 1 to 4 for a heading." })
  level: number | null;
  @ApiProperty()
  text: string;
  @ApiProperty({ description: "The words that stand there, shortened." })
  context: string;
  @ApiProperty({ type: Number, nullable: true, description: "A note's number within its chapter." })
  ordinal: number | null;
  @ApiProperty({ type: String, nullable: true, description: "The note in which it stands, or which it is." })
  note: string | null;
  @ApiProperty({ type: SignpostListShape, nullable: true, description: "What a signpost list lists." })
  list: SignpostList | null;
  @ApiProperty({ type: String, nullable: true, description: "The page of the last PDF on which it fell." })
  page: string | null;
  @ApiProperty()
  chapterId: string;
  @ApiProperty()
  chapter: string;
  @ApiProperty({ description: "How many links lead there." })
  uses: number;
  @ApiProperty({ enum: chapterRoles, description: "Of what it is in." })
  role: ChapterRole;
  @ApiProperty({ description: "Whether it is the top of a companion page that has no words yet." })
  unwritten: boolean;
}

export class RenamePlaceRequest {
  @ApiProperty({ description: "Any words in any script." })
  @Words(500, "Give the anchor a name of at most 500 characters.")
  name: string;
}

export class RemovePlaceRequest {
  @ApiPropertyOptional({
    description:
      "Where the links that led there lead then: another place's id, or “nowhere” to leave them dangling.",
  })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(64)
  to?: string;
}
