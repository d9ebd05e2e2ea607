import type { MigrationInterface, QueryRunner } from "typeorm";

/** Books that were deleted stay for a while, so that they can be brought back. */
export class DeletedBooks1764000000027 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE book ADD deletedAt datetime(3) NULL, ADD INDEX IDX_book_deleted (deletedAt)",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DELETE FROM book WHERE deletedAt IS NOT NULL");
    await runner.query("ALTER TABLE book DROP INDEX IDX_book_deleted, DROP deletedAt");
  }
}
