import { ApiProperty } from "@nestjs/swagger";
import type { FilePlaces } from "@vennet/core/manuscript/file-places";

class PicturePixelsAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  width: number;
  @ApiProperty()
  height: number;
}

class WordsElsewhereAnswer {
  @ApiProperty({ description: "Words of links as they are compared." })
  words: string;
  @ApiProperty({ type: [String], description: "To what destinations such words lead in other chapters." })
  ends: string[];
}

class PlaceInLedFileAnswer {
  @ApiProperty()
  at: string;
  @ApiProperty()
  name: string;
}

class LedFileAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ type: Number, nullable: true, description: "How many pages it has, where it has pages." })
  pages: number | null;
  @ApiProperty({ type: [PlaceInLedFileAnswer] })
  places: FilePlaces["places"];
}

class SchemesAnswer {
  @ApiProperty()
  http: number;
  @ApiProperty()
  https: number;
}

class DeadEndAnswer {
  @ApiProperty()
  to: string;
  @ApiProperty({ description: "The first page of the file on which it stands." })
  page: number;
}

class DeadEndsAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ type: [DeadEndAnswer] })
  links: readonly DeadEndAnswer[];
}

/** What rules are told of the book around one of its chapters, beside its places, files and answers. */
export class SurroundingsAnswer {
  @ApiProperty({ type: [PicturePixelsAnswer] })
  pictures: PicturePixelsAnswer[];
  @ApiProperty({ type: [WordsElsewhereAnswer], description: "Of words that links of this chapter have too." })
  words: WordsElsewhereAnswer[];
  @ApiProperty({
    type: [LedFileAnswer],
    description: "The companion files to whose pages or places links lead.",
  })
  files: LedFileAnswer[];
  @ApiProperty({
    type: SchemesAnswer,
    description: "How many links of other chapters have addresses of each.",
  })
  schemes: SchemesAnswer;
  @ApiProperty({ type: [DeadEndsAnswer], description: "Companion files whose own links lead nowhere." })
  deadEnds: DeadEndsAnswer[];
}
