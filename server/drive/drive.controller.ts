import { Controller, Get } from "@nestjs/common";
import { ApiOkResponse, ApiTags } from "@nestjs/swagger";
import { SharedFileAnswer } from "./drive.dto.ts";
import { DriveService } from "./drive.service.ts";

@ApiTags("files")
@Controller("books/:bookId/drive")
export class DriveController {
  constructor(private readonly drive: DriveService) {}

  @Get()
  @ApiOkResponse({ type: [SharedFileAnswer], description: "The shared drive's files." })
  async files(): Promise<SharedFileAnswer[]> {
    return this.drive.files();
  }
}
