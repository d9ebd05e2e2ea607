import { ApiProperty } from "@nestjs/swagger";
import { IsEmail, IsString, Length, MaxLength } from "class-validator";

export class SignInRequest {
  @ApiProperty({ example: "walker@hesterley.example" })
  @IsEmail({ require_tld: false }, { message: "Give the email address of your account." })
  email: string;

  @ApiProperty()
  @IsString()
  @Length(1, 200, { message: "Give your password." })
  password: string;
}

export class NewAccountRequest {
  @ApiProperty()
  @IsString()
  @Length(1, 200, { message: "Give the name that stands on your books." })
  name: string;

  @ApiProperty()
  @IsEmail({ require_tld: false }, { message: "Give an email address to sign in with." })
  @MaxLength(255)
  email: string;

  @ApiProperty({ minLength: 10 })
  @IsString()
  @Length(10, 200, { message: "A password has at least 10 characters." })
  password: string;
}

export class AccountAnswer {
  @ApiProperty()
  id: string;
  @ApiProperty()
  name: string;
  @ApiProperty()
  email: string;
}
