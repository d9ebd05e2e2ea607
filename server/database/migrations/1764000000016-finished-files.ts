import type { MigrationInterface, QueryRunner } from "typeorm";

/** A publication may be a finished file, whose links are worked on in place. */
export class FinishedFiles1764000000016 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book ADD finished longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book DROP COLUMN finished");
  }
}
