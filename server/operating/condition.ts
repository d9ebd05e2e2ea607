import { Injectable } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource } from "typeorm";
import { isDatabaseAway } from "../database/away.ts";
import { Settings } from "../settings.ts";
import { WorkerPools, type LaneLoad } from "../workers/worker-pools.ts";
import { DiskRoom } from "./disk-room.ts";
import { PlannedBackups } from "./planned-backups.ts";

/** How a server is at this moment. */
export interface ConditionNow {
  database: { state: "well" | "away"; ms: number | null };
  jobs: { kind: string; state: "waiting" | "running"; count: number }[];
  lanes: LaneLoad[];
  disk: { freeBytes: number; totalBytes: number; isLow: boolean };
  backupAgeSeconds: number | null;
}

/** Looks at what a server stands on. */
@Injectable()
export class Condition {
  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly settings: Settings,
    private readonly workers: WorkerPools,
    private readonly disk: DiskRoom,
    private readonly backups: PlannedBackups,
  ) {}

  async now(): Promise<ConditionNow> {
    const began = performance.now();
    let jobs: ConditionNow["jobs"] = [];
    let database: ConditionNow["database"] = { state: "away", ms: null };
    try {
      const rows: { kind: string; state: "waiting" | "running"; count: string }[] = await this.database.query(
        "SELECT kind, state, COUNT(*) AS count FROM job WHERE state IN ('waiting', 'running') GROUP BY kind, state",
      );
      jobs = rows.map(({ kind, state, count }) => ({ kind, state, count: Number(count) }));
      database = { state: "well", ms: Math.round(performance.now() - began) };
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
    }
    const { free, total } = await this.disk.least();
    const backup = await this.backups.lastAt();
    return {
      database,
      jobs,
      lanes: this.workers.load(),
      disk: { freeBytes: free, totalBytes: total, isLow: free < this.settings.diskReserveBytes },
      backupAgeSeconds: backup && Math.round((Date.now() - backup.getTime()) / 1000),
    };
  }
}
