import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, LessThanOrEqual } from "typeorm";
import { Book } from "../books/book.entity.ts";
import { nextRun } from "./next-run.ts";
import { ReachService } from "./reach.service.ts";

const lookPause = 30_000;

/** Begins the runs that books have planned, each on one server only. */
@Injectable()
export class PlannedRuns implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(PlannedRuns.name);
  private timer: NodeJS.Timeout | undefined;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly reach: ReachService,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      this.begin(new Date()).catch((error: unknown) =>
        this.logger.error(`Planned runs were not begun: ${String(error)}`),
      );
    }, lookPause);
  }

  onApplicationShutdown(): void {
    clearInterval(this.timer);
  }

  /** Begins the runs whose time has come. One that was missed while no server ran is begun once. */
  async begin(now: Date): Promise<void> {
    const due = await this.database.manager.find(Book, {
      where: { nextRunAt: LessThanOrEqual(now) },
      select: { id: true, schedule: true, nextRunAt: true },
    });
    for (const { id, schedule, nextRunAt } of due) {
      const next = schedule === null ? null : nextRun(schedule, now);
      // Of several servers the one that changes the time begins the run.
      const taken = await this.database.manager.update(
        Book,
        { id, nextRunAt: nextRunAt! },
        { nextRunAt: next },
      );
      if (taken.affected && schedule !== null) await this.reach.begin(id, { which: "due" });
    }
  }
}
