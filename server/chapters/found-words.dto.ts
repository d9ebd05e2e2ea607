import { ApiProperty } from "@nestjs/swagger";
import { IsInt, IsString, MaxLength, Min } from "class-validator";

/** Words of a chapter, as a search found them. */
export class FoundWords {
  @ApiProperty()
  @IsString()
  @MaxLength(36)
  chapterId: string;

  @ApiProperty({ description: "The chapter's revision in which the positions are true." })
  @IsInt()
  revision: number;

  @ApiProperty()
  @IsInt()
  @Min(0)
  from: number;

  @ApiProperty()
  @IsInt()
  @Min(1)
  to: number;
}
