import type { MigrationInterface, QueryRunner } from "typeorm";

/** Places that are gone keep their names, for the links that still lead to them. */
export class GonePlaces1764000000014 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE gone_place (
        bookId char(36) NOT NULL,
        placeId varchar(64) NOT NULL,
        name varchar(1000) NOT NULL,
        PRIMARY KEY (bookId, placeId),
        CONSTRAINT FK_gone_place_book FOREIGN KEY (bookId) REFERENCES book (id) ON DELETE CASCADE ON UPDATE NO ACTION
      )`,
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE gone_place");
  }
}
