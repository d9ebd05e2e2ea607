import { ApiProperty } from "@nestjs/swagger";
import { IsString, MaxLength } from "class-validator";

const states = ["sound", "moved", "guarded", "broken", "unsure", "unchecked"] as const;

export class HopAnswer {
  @ApiProperty({ enum: ["HEAD", "GET"] })
  method: "HEAD" | "GET";
  @ApiProperty()
  address: string;
  @ApiProperty({ type: Number, nullable: true })
  status: number | null;
  @ApiProperty({ type: String, nullable: true })
  location: string | null;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "The code of the failure, where no answer came.",
  })
  failure: string | null;
  @ApiProperty({ description: "Milliseconds to the answer's head." })
  ms: number;
}

export class DestinationUseAnswer {
  @ApiProperty()
  linkId: string;
  @ApiProperty()
  text: string;
  @ApiProperty()
  chapterId: string;
  @ApiProperty()
  chapter: string;
}

export class DestinationAnswer {
  @ApiProperty({ description: "The address as the manuscript has it." })
  address: string;
  @ApiProperty({ enum: states })
  state: (typeof states)[number];
  @ApiProperty({ description: "Why it is in this state, in words." })
  reason: string;
  @ApiProperty({ type: String, nullable: true })
  movedTo: string | null;
  @ApiProperty({ type: String, nullable: true })
  checkedAt: string | null;
  @ApiProperty({ type: [HopAnswer] })
  hops: HopAnswer[];
  @ApiProperty({ type: [DestinationUseAnswer] })
  uses: DestinationUseAnswer[];
}

export class TitleQuery {
  @ApiProperty({ description: "A web address." })
  @IsString()
  @MaxLength(8000)
  address: string;
}

export class TitleAnswer {
  @ApiProperty({ type: String, nullable: true, description: "Null where the page does not tell one." })
  title: string | null;
}
