import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of pictures it is known how many pixels they have. */
export class PictureSizes1764000000019 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD pixels longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file DROP COLUMN pixels");
  }
}
