import { Module } from "@nestjs/common";
import { DriveController } from "./drive.controller.ts";
import { DriveService } from "./drive.service.ts";

/** The shared drive. */
@Module({
  controllers: [DriveController],
  providers: [DriveService],
  exports: [DriveService],
})
export class DriveModule {}
