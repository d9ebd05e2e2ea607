import { Module } from "@nestjs/common";
import { DiskRoom } from "./disk-room.ts";

/** What whoever runs this server has to know, and what keeps it running. */
@Module({
  providers: [DiskRoom],
  exports: [DiskRoom],
})
export class OperatingModule {}
