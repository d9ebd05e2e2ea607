import type { MigrationInterface, QueryRunner } from "typeorm";

/** Manuscripts that were brought in keep their arrival proofs, and the texts as they came. */
export class Arrivals1764000000015 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE arrival (
        id char(36) NOT NULL,
        bookId char(36) NULL,
        fileName varchar(255) NOT NULL,
        \`grouped\` longtext NOT NULL,
        csv longtext NOT NULL,
        documents longtext NOT NULL,
        version longtext NULL,
        createdAt datetime(3) NOT NULL,
        PRIMARY KEY (id),
        INDEX IDX_arrival_book (bookId, createdAt),
        INDEX IDX_arrival_created (createdAt),
        CONSTRAINT FK_arrival_book FOREIGN KEY (bookId) REFERENCES book (id) ON DELETE CASCADE ON UPDATE NO ACTION
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE arrival");
  }
}
