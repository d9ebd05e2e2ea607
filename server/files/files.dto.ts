import { ApiProperty } from "@nestjs/swagger";
import { Words } from "../http/words.ts";

export class FileAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  name: string;
  @ApiProperty({ description: "Bytes." })
  size: number;
}

export class CompanionFileAnswer extends FileAnswer {
  @ApiProperty({ description: "Judged by its content." })
  mediaType: string;
  @ApiProperty()
  sha256: string;
  @ApiProperty()
  changedAt: string;
  @ApiProperty({ description: "How many links lead to it." })
  uses: number;
}

class PlaceInFile {
  @ApiProperty({ description: "What it is called in an address, behind the `#`." })
  at: string;
  @ApiProperty()
  name: string;
}

/** A companion file in which links can lead to pages or places. */
export class FilePlacesAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  name: string;
  @ApiProperty({
    type: Number,
    nullable: true,
    description: "How many pages it has; null where it has none.",
  })
  pages: number | null;
  @ApiProperty({ type: [PlaceInFile] })
  places: PlaceInFile[];
}

export class StoredCompanionAnswer {
  @ApiProperty()
  file: CompanionFileAnswer;
  @ApiProperty({ type: String, nullable: true, description: "What is odd about it, for the author." })
  warning: string | null;
}

export class RefusedFileAnswer {
  @ApiProperty()
  code: string;
  @ApiProperty()
  message: string;
}

export class StoredCompanionsAnswer {
  @ApiProperty({ type: [StoredCompanionAnswer] })
  stored: StoredCompanionAnswer[];
  @ApiProperty({ type: [RefusedFileAnswer] })
  refused: RefusedFileAnswer[];
}

export class RenameFileRequest {
  @ApiProperty()
  @Words(255, "Give the file a name of at most 255 characters.")
  name: string;
}
