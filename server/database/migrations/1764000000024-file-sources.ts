import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of companion files it is known of which other publication they are. */
export class FileSources1764000000024 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD source longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file DROP COLUMN source");
  }
}
