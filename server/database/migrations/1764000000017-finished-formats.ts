import type { MigrationInterface, QueryRunner } from "typeorm";

/** Finished files say in which format they are; all that are there are PDFs. */
export class FinishedFormats1764000000017 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "UPDATE book SET finished = JSON_SET(finished, '$.format', 'pdf') WHERE finished IS NOT NULL",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      "UPDATE book SET finished = JSON_REMOVE(finished, '$.format') WHERE finished IS NOT NULL",
    );
  }
}
