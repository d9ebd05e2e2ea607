import type { MigrationInterface, QueryRunner } from "typeorm";

/** A book keeps how its pages are laid out. */
export class PageLayout1764000000006 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book ADD layout longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book DROP layout");
  }
}
