import { Module } from "@nestjs/common";
import { WorkersModule } from "../workers/workers.module.ts";
import { Condition } from "./condition.ts";
import { DiskRoom } from "./disk-room.ts";
import { HealthController } from "./health.controller.ts";
import { Metrics } from "./metrics.ts";
import { PlannedBackups } from "./planned-backups.ts";

/** What whoever runs this server has to know, and what keeps it running. */
@Module({
  imports: [WorkersModule],
  controllers: [HealthController],
  providers: [Condition, DiskRoom, Metrics, PlannedBackups],
  exports: [DiskRoom, Metrics],
})
export class OperatingModule {}
