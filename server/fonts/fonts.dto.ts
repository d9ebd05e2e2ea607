import { ApiProperty } from "@nestjs/swagger";
import type { FaceFacts, Permission } from "@vennet/core/manuscript/book-fonts";
import { FileAnswer, RefusedFileAnswer } from "../files/files.dto.ts";

/** One face of a family that the author brought. */
export class FontAnswer extends FileAnswer implements FaceFacts {
  @ApiProperty()
  family: string;
  @ApiProperty({ description: "100 to 900." })
  weight: number;
  @ApiProperty()
  italic: boolean;
  @ApiProperty({ description: "Its width, in hundredths of the normal one." })
  stretch: number;
  @ApiProperty({
    enum: ["installable", "editable", "preview", "restricted"],
    description: "What its maker lets others do with it in a file.",
  })
  permission: Permission;
  @ApiProperty({ description: "Whether it may be cut down to the letters that are used." })
  canBeSubset: boolean;
}

export class StoredFontsAnswer {
  @ApiProperty({ type: [FontAnswer] })
  stored: FontAnswer[];
  @ApiProperty({ type: [RefusedFileAnswer] })
  refused: RefusedFileAnswer[];
}
