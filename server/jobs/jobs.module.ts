import { Module } from "@nestjs/common";
import { TypeOrmModule } from "@nestjs/typeorm";
import { Job } from "./job.entity.ts";
import { JobsController } from "./jobs.controller.ts";
import { JobsService } from "./jobs.service.ts";

/** Work that outlives a request. */
@Module({
  imports: [TypeOrmModule.forFeature([Job])],
  controllers: [JobsController],
  providers: [JobsService],
  exports: [JobsService],
})
export class JobsModule {}
