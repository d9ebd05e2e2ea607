import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of companion files it is known which pages and places they have. */
export class FilePlaces1764000000018 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD places longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file DROP COLUMN places");
  }
}
