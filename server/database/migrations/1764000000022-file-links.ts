import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of companion files it is known where their own links lead. */
export class FileLinks1764000000022 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD hasLinksRead tinyint NOT NULL DEFAULT 0");
    await runner.query(
      `CREATE TABLE file_link (
        fileId char(36) NOT NULL,
        ordinal int NOT NULL,
        bookId char(36) NOT NULL,
        destination text NOT NULL,
        page int NOT NULL,
        askedAddress text NULL,
        host varchar(300) NULL,
        askedHash char(64) NULL,
        PRIMARY KEY (fileId, ordinal),
        INDEX IDX_file_link_asked (bookId, askedHash),
        CONSTRAINT FK_file_link_file FOREIGN KEY (fileId) REFERENCES stored_file (id) ON DELETE CASCADE ON UPDATE NO ACTION
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE file_link");
    await runner.query("ALTER TABLE stored_file DROP COLUMN hasLinksRead");
  }
}
