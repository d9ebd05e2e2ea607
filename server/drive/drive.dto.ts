import { ApiProperty } from "@nestjs/swagger";

export class SharedFileAnswer {
  @ApiProperty()
  name: string;
  @ApiProperty()
  folder: string;
  @ApiProperty({ description: "Bytes." })
  size: number;
  @ApiProperty({ description: "The address under which it is shared." })
  address: string;
  @ApiProperty({ enum: ["owner", "group", "anyone"], description: "Who may open it." })
  audience: "owner" | "group" | "anyone";
  @ApiProperty({ type: String, nullable: true, description: "The group's name." })
  group: string | null;
}
