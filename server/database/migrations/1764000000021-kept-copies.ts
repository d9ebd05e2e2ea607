import type { MigrationInterface, QueryRunner } from "typeorm";

/** Copies of linked pages travel with the book. */
export class KeptCopies1764000000021 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE kept_copy (
        bookId char(36) NOT NULL,
        askedHash char(64) NOT NULL,
        fileId char(36) NOT NULL,
        keptAt datetime(3) NOT NULL,
        PRIMARY KEY (bookId, askedHash),
        CONSTRAINT FK_kept_copy_book FOREIGN KEY (bookId) REFERENCES book (id) ON DELETE CASCADE ON UPDATE NO ACTION,
        CONSTRAINT FK_kept_copy_file FOREIGN KEY (fileId) REFERENCES stored_file (id) ON DELETE CASCADE ON UPDATE NO ACTION
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE kept_copy");
  }
}
