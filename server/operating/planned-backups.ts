import { mkdir, readdir, rm, stat } from "node:fs/promises";
import { join } from "node:path";
import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from "@nestjs/common";
import { InjectDataSource } from "@nestjs/typeorm";
import { DataSource, type QueryRunner } from "typeorm";
import { Settings } from "../settings.ts";
import { makeBackup, toldContent } from "./backup.ts";

const lookPause = 5 * 60_000;
const fileName = /^vennet-\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2}\.sql\.gz$/;
const lockName = "vennet-backup";
const hour = 60 * 60_000;

/** Makes backups at regular times into a folder, and keeps so many of them. */
@Injectable()
export class PlannedBackups implements OnApplicationBootstrap, OnApplicationShutdown {
  private readonly logger = new Logger(PlannedBackups.name);
  private timer: NodeJS.Timeout | undefined;
  private underWay: Promise<void> | null = null;

  constructor(
    @InjectDataSource() private readonly database: DataSource,
    private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    if (!this.settings.backupFolder) return;
    const look = (): void => {
      this.underWay ??= this.makeDue(new Date())
        .catch((error: unknown) => this.logger.error(`No backup was made: ${(error as Error).message}`))
        .finally(() => (this.underWay = null));
    };
    look();
    this.timer = setInterval(look, lookPause);
  }

  async onApplicationShutdown(): Promise<void> {
    clearInterval(this.timer);
    await this.underWay;
  }

  /** When the last backup was made; null where there is none, or no folder for them. */
  async lastAt(): Promise<Date | null> {
    const [newest] = await this.made();
    return newest?.at ?? null;
  }

  /** Makes a backup if one is due. Of several servers that look at once, one does it. */
  async makeDue(now: Date): Promise<void> {
    const { backupFolder, backupEveryHours } = this.settings;
    if (!backupFolder) return;
    await mkdir(backupFolder, { recursive: true });
    const last = await this.lastAt();
    if (last && now.getTime() - last.getTime() < backupEveryHours * hour) return;
    const runner = this.database.createQueryRunner();
    try {
      const [{ taken }] = (await runner.query("SELECT GET_LOCK(?, 0) AS taken", [lockName])) as [
        { taken: string },
      ];
      if (Number(taken) === 1) await this.make(now, backupFolder).finally(() => this.unlock(runner));
    } finally {
      await runner.release();
    }
  }

  /** The lock is the connection's, which others use after this. */
  private unlock(runner: QueryRunner): Promise<unknown> {
    return runner.query("SELECT RELEASE_LOCK(?)", [lockName]);
  }

  private async make(now: Date, folder: string): Promise<void> {
    const name = `vennet-${now.toISOString().slice(0, 19).replaceAll(":", "-")}.sql.gz`;
    const content = await makeBackup(this.settings.databaseUrl, join(folder, name));
    this.logger.warn(`Backup ${name}: ${toldContent(content)}.`);
    await this.dropOld();
  }

  private async dropOld(): Promise<void> {
    for (const { file } of (await this.made()).slice(this.settings.backupsKept)) await rm(file);
  }

  /** The backups in the folder, the newest first; other files there are left alone. */
  private async made(): Promise<{ file: string; at: Date }[]> {
    const { backupFolder } = this.settings;
    if (!backupFolder) return [];
    const names = (await readdir(backupFolder).catch(() => [])).filter((name) => fileName.test(name));
    const files = names
      .sort()
      .reverse()
      .map((name) => join(backupFolder, name));
    return Promise.all(files.map(async (file) => ({ file, at: (await stat(file)).mtime })));
  }
}
