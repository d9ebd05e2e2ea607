import { ApiProperty, ApiPropertyOptional } from "@nestjs/swagger";
import { IsEmail, IsString, Length, MaxLength } from "class-validator";
import { Words } from "../http/words.ts";
import { MayBeLeftOut } from "../http/may-be-left-out.ts";

// How long a password has to be is judged with the rest of its rule; this keeps out what is none at all.
const longestPassword = 1_000;
const longestToken = 100;

export class SignInRequest {
  @ApiProperty({ example: "walker@hesterley.example" })
  @IsEmail({ require_tld: false }, { message: "Give the email address of your account." })
  email: string;

  @ApiProperty()
  @IsString()
  @Length(1, longestPassword, { message: "Give your password." })
  password: string;
}

export class NewAccountRequest {
  @ApiProperty()
  @Words(200, "Give the name that stands on your books.")
  name: string;

  @ApiProperty()
  @IsEmail({ require_tld: false }, { message: "Give an email address to sign in with." })
  @MaxLength(255)
  email: string;

  @ApiProperty({ minLength: 10 })
  @IsString()
  @Length(1, longestPassword, { message: "A password has at least 10 characters." })
  password: string;

  @ApiPropertyOptional({
    description: "The secret of a link of invitation, where accounts are made by these.",
  })
  @MayBeLeftOut()
  @IsString()
  @MaxLength(longestToken)
  invitation?: string;
}

export class AccountAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  name: string;
  @ApiProperty()
  email: string;
}

export class RenameAccountRequest {
  @ApiProperty()
  @Words(200, "Give the name that stands on your books.")
  name: string;
}

/** What is asked for only with the account's password, though a session is open. */
export class OwnPasswordRequest {
  @ApiProperty({ description: "The password of the account." })
  @IsString()
  @Length(1, longestPassword, { message: "Give your password." })
  current: string;
}

export class ChangePasswordRequest extends OwnPasswordRequest {
  @ApiProperty({ minLength: 10 })
  @IsString()
  @Length(1, longestPassword, { message: "A password has at least 10 characters." })
  password: string;
}

export class ChangeEmailRequest extends OwnPasswordRequest {
  @ApiProperty()
  @IsEmail({ require_tld: false }, { message: "Give an email address to sign in with." })
  @MaxLength(255)
  email: string;
}

export class ForgottenPasswordRequest {
  @ApiProperty()
  @IsEmail({ require_tld: false }, { message: "Give the email address of your account." })
  @MaxLength(255)
  email: string;
}

/** By the link of a mail. */
export class MailedLinkRequest {
  @ApiProperty({ description: "The secret of the link that was mailed." })
  @IsString()
  @Length(1, longestToken)
  token: string;
}

export class NewPasswordRequest extends MailedLinkRequest {
  @ApiProperty({ minLength: 10 })
  @IsString()
  @Length(1, longestPassword, { message: "A password has at least 10 characters." })
  password: string;
}

export class ConfirmedEmailAnswer {
  @ApiProperty()
  email: string;
}

export class SessionAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty({ description: "What the browser or script calls itself." })
  device: string;
  @ApiProperty()
  createdAt: string;
  @ApiProperty({ description: "To the minute." })
  lastSeenAt: string;
  @ApiProperty({ description: "Whether it is the one that asks." })
  isThis: boolean;
}

export class UsageAnswer {
  @ApiProperty()
  books: number;
  @ApiProperty()
  mostBooks: number;
  @ApiProperty({ description: "Of pictures, companion files, and exported files." })
  bytes: number;
  @ApiProperty()
  mostBytes: number;
}

export class EntryAnswer {
  @ApiProperty({ enum: ["open", "invitation", "closed"], description: "Who may make an account." })
  registration: "open" | "invitation" | "closed";
  @ApiProperty({ description: "Whether a forgotten password can be replaced by a link in a mail." })
  mail: boolean;
}
