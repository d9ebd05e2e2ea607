import { Controller, Get, Res } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import type { Response } from "express";
import { Account } from "../accounts/account.entity.ts";
import { SignedIn } from "../accounts/session.guard.ts";
import { EverythingService } from "./everything.service.ts";
import { zipStream } from "./zip-stream.ts";

@ApiTags("account")
@Controller("account")
export class EverythingController {
  constructor(private readonly everything: EverythingService) {}

  @Get("everything")
  @ApiOkResponse({
    content: { "application/zip": { schema: { type: "string", format: "binary" } } },
    description: "All books of the account, with all that belongs to them.",
  })
  download(@SignedIn() account: Account, @Res() response: Response): void {
    response.attachment("vennet-everything.zip");
    zipStream(this.everything.of(account))
      .on("error", (error) => response.destroy(error))
      .pipe(response);
  }
}
