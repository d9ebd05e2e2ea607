import type { MigrationInterface, QueryRunner } from "typeorm";

/** What walking the links of an exported file came to is kept with it. */
export class WalksKept1764000000011 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE export ADD walk longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE export DROP COLUMN walk");
  }
}
