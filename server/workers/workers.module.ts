import { Module } from "@nestjs/common";
import { WorkerPools } from "./worker-pools.ts";

/** The processes for heavy work. */
@Module({
  providers: [WorkerPools],
  exports: [WorkerPools],
})
export class WorkersModule {}
