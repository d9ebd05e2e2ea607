import { createHash, timingSafeEqual } from "node:crypto";
import { Controller, Get, Req, Res } from "@nestjs/common";
import { ApiOkResponse, ApiProperty, ApiResponse, ApiTags } from "@nestjs/swagger";
import type { Request, Response } from "express";
import { OpenToAll } from "../accounts/session.guard.ts";
import { Problem } from "../errors/problem.ts";
import { Settings } from "../settings.ts";
import { Condition } from "./condition.ts";
import { Metrics } from "./metrics.ts";

class DatabaseHealth {
  @ApiProperty({ enum: ["well", "away"] })
  state: "well" | "away";
  @ApiProperty({ type: Number, nullable: true, description: "How long it took to answer, in milliseconds." })
  ms: number | null;
}

class QueueHealth {
  @ApiProperty({ description: "Jobs that wait for their turn." })
  waiting: number;
  @ApiProperty({ description: "Jobs that are under way." })
  running: number;
}

class DiskHealth {
  @ApiProperty()
  freeBytes: number;
  @ApiProperty()
  totalBytes: number;
  @ApiProperty({ description: "Whether uploads and exports are refused for want of room." })
  isLow: boolean;
}

class LaneHealth {
  @ApiProperty({ description: "The sort of heavy work." })
  lane: string;
  @ApiProperty({ description: "How many run at once." })
  processes: number;
  @ApiProperty()
  running: number;
  @ApiProperty()
  waiting: number;
}

export class HealthAnswer {
  @ApiProperty({ enum: ["well", "ailing"], description: "Ailing: the database is away, or the disk is low." })
  state: "well" | "ailing";
  @ApiProperty({ description: "Whether the demo account can be used." })
  demo: boolean;
  @ApiProperty({
    type: String,
    nullable: true,
    description: "Where a browser finds the stand-in web, if it runs.",
  })
  standInWeb: string | null;
  @ApiProperty()
  database: DatabaseHealth;
  @ApiProperty()
  queue: QueueHealth;
  @ApiProperty()
  disk: DiskHealth;
  @ApiProperty({ type: [LaneHealth] })
  lanes: LaneHealth[];
  @ApiProperty({ type: Number, nullable: true, description: "Null where no backups are made by the server." })
  backupAgeSeconds: number | null;
}

@ApiTags("health")
@Controller()
export class HealthController {
  constructor(
    private readonly settings: Settings,
    private readonly condition: Condition,
    private readonly measured: Metrics,
  ) {}

  @Get("health")
  @OpenToAll()
  @ApiOkResponse({ type: HealthAnswer })
  @ApiResponse({ status: 503, type: HealthAnswer, description: "The database is away." })
  async health(@Res({ passthrough: true }) response: Response): Promise<HealthAnswer> {
    const { database, jobs, lanes, disk, backupAgeSeconds } = await this.condition.now();
    const { standIns, demo } = this.settings;
    const count = (state: string): number =>
      jobs.reduce((sum, job) => sum + (job.state === state ? job.count : 0), 0);
    if (database.state === "away") response.status(503).setHeader("Retry-After", 5);
    return {
      state: database.state === "away" || disk.isLow ? "ailing" : "well",
      demo,
      standInWeb: standIns ? `http://127.0.0.1:${standIns.httpPort}/~` : null,
      database,
      queue: { waiting: count("waiting"), running: count("running") },
      disk,
      lanes,
      backupAgeSeconds,
    };
  }

  @Get("metrics")
  @OpenToAll()
  @ApiOkResponse({ content: { "text/plain": { schema: { type: "string" } } } })
  async metrics(@Req() request: Request, @Res() response: Response): Promise<void> {
    const { metricsToken } = this.settings;
    if (!metricsToken || !isSame(request.headers.authorization ?? "", `Bearer ${metricsToken}`)) {
      throw new Problem(
        401,
        "metrics",
        "The metrics are for whoever runs this Vennet: ask with the token of METRICS_TOKEN (Authorization: Bearer).",
      );
    }
    response.type(this.measured.contentType).send(await this.measured.text());
  }
}

/** Compared so that the time tells nothing of how much was right. */
function isSame(given: string, wanted: string): boolean {
  const digest = (text: string): Buffer => createHash("sha256").update(text).digest();
  return timingSafeEqual(digest(given), digest(wanted));
}
