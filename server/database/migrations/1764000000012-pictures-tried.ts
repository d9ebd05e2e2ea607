import type { MigrationInterface, QueryRunner } from "typeorm";

/** Whether a picture can be decoded is known before an export. */
export class PicturesTried1764000000012 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD isSound tinyint NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file DROP COLUMN isSound");
  }
}
