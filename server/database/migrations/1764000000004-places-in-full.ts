import type { MigrationInterface, QueryRunner } from "typeorm";

/** Notes, captions and signpost lists are places; a book has conventions; exports tell on which page places fell; findings are accepted. */
export class PlacesInFull1764000000004 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book ADD conventions longtext NULL");
    // Derived rows; they are written anew from the documents at the next start.
    await runner.query("DELETE FROM place");
    await runner.query(
      "ALTER TABLE place ADD noteOrdinal int NULL, ADD note varchar(64) NULL, ADD list longtext NULL",
    );
    await runner.query("ALTER TABLE export ADD addresses varchar(10) NOT NULL DEFAULT 'none'");
    await runner.query("ALTER TABLE export ADD pageOfPlace longtext NULL");
    await runner.query(
      "CREATE TABLE acceptance (bookId char(36) NOT NULL, subject varchar(64) NOT NULL, rule varchar(40) NOT NULL, reason varchar(500) NOT NULL, input varchar(64) NOT NULL, acceptedAt datetime(3) NOT NULL, PRIMARY KEY (bookId, subject, rule)) ENGINE=InnoDB",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE acceptance");
    await runner.query("ALTER TABLE export DROP pageOfPlace");
    await runner.query("ALTER TABLE export DROP addresses");
    await runner.query("ALTER TABLE place DROP noteOrdinal, DROP note, DROP list");
    await runner.query("ALTER TABLE book DROP conventions");
  }
}
