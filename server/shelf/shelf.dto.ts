import { ApiProperty } from "@nestjs/swagger";
import { IsOptional, IsString, IsUUID, Length } from "class-validator";
import { FileAnswer } from "../files/files.dto.ts";

/** Kinds of places that are called something by which an author would look for them. */
export const namedKinds = ["title", "heading", "anchor", "figure", "table"] as const;

/** A place of another publication of the same Shelf, or that publication itself. */
export class ShelfPlaceAnswer {
  @ApiProperty()
  bookId: string;
  @ApiProperty({ description: "The publication’s title." })
  title: string;
  @ApiProperty({ type: String, nullable: true, description: "Null for the publication itself." })
  placeId: string | null;
  @ApiProperty({ description: "What the place is called; empty for the publication itself." })
  name: string;
  @ApiProperty({
    enum: namedKinds,
    nullable: true,
    description: "What kind of place; null for the publication itself.",
  })
  kind: (typeof namedKinds)[number] | null;
}

export class LeadToShelfRequest {
  @ApiProperty({ description: "The other publication." })
  @IsUUID()
  bookId: string;
  @ApiProperty({ type: String, nullable: true, description: "One of its places; null for the whole of it." })
  @IsOptional()
  @IsString()
  @Length(1, 64)
  placeId: string | null;
}

/** Where a link to it leads: to a companion file, which was brought in for it where there was none. */
export class LedToShelfAnswer {
  @ApiProperty()
  file: FileAnswer;
  @ApiProperty({ type: String, nullable: true, description: "The page or place in it, as in an address." })
  at: string | null;
}

/** A companion file that is a file of another publication of the same Shelf. */
export class FromShelfAnswer {
  @ApiProperty()
  fileId: string;
  @ApiProperty()
  bookId: string;
  @ApiProperty()
  title: string;
  @ApiProperty({ description: "Whether that publication has gone out anew since." })
  isOlder: boolean;
}
