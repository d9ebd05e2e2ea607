import { rules } from "@vennet/core/checks/check-chapter";
import { ApiProperty } from "@nestjs/swagger";
import { IsIn, Matches } from "class-validator";
import { Words } from "../http/words.ts";

const acceptable = rules.filter(({ severity }) => severity !== "stop").map(({ id }) => id);

export class AcceptanceRequest {
  @ApiProperty({ description: "The id of what the finding is about." })
  @Matches(/^[A-Za-z][\w-]{0,63}$/, { message: "That is not the id of a link or place." })
  subject: string;

  @ApiProperty({ description: "The rule that found it." })
  @IsIn(acceptable, { message: "No finding of this rule can be accepted." })
  rule: string;

  @ApiProperty()
  @Words(500, "Say in up to 500 characters why it may stay.")
  reason: string;
}

export class AcceptanceAnswer extends AcceptanceRequest {
  @ApiProperty()
  acceptedAt: string;
}
