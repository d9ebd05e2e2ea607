import type { MigrationInterface, QueryRunner } from "typeorm";

/** A book says how its links look. */
export class LinkLooks1764000000003 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book ADD looks longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book DROP looks");
  }
}
