import { ApiProperty } from "@nestjs/swagger";

/** A page of a finished file, by the part that holds its links. */
export class FinishedPageAnswer {
  @ApiProperty({ description: "The id of the part, as chapters have one." })
  id: string;
  @ApiProperty({ description: "Counts the saves of its links." })
  revision: number;
  @ApiProperty({
    type: "object",
    additionalProperties: true,
    description: "Its links and places, as core reads them.",
  })
  document: Record<string, unknown>;
}
