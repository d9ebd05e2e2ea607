import type { MigrationInterface, QueryRunner } from "typeorm";

/** Companion pages and files, places, versions and steps; the ledger tells where a link stands. */
export class LinksInFull1764000000001 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE chapter ADD role varchar(10) NOT NULL DEFAULT 'chapter'");
    // Derived rows; they are written anew from the documents at the next start.
    await runner.query("DELETE FROM link_use");
    await runner.query(
      "ALTER TABLE link_use ADD description text NULL, ADD coverage varchar(10) NOT NULL, ADD heading varchar(1000) NOT NULL",
    );
    await runner.query(`CREATE TABLE place (
      chapterId char(36) NOT NULL,
      ordinal int NOT NULL,
      bookId char(36) NOT NULL,
      placeId varchar(64) NOT NULL,
      kind varchar(10) NOT NULL,
      level int NULL,
      text varchar(1000) NOT NULL,
      INDEX IDX_place_book (bookId, placeId),
      PRIMARY KEY (chapterId, ordinal)
    ) ENGINE=InnoDB`);
    await runner.query(
      "ALTER TABLE stored_file ADD role varchar(10) NOT NULL DEFAULT 'picture', ADD changedAt datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)",
    );
    await runner.query("UPDATE stored_file SET role = 'export' WHERE mediaType NOT LIKE 'image/%'");
    await runner.query(`CREATE TABLE chapter_version (
      id char(36) NOT NULL,
      chapterId char(36) NOT NULL,
      bookId char(36) NOT NULL,
      revision int NOT NULL,
      title varchar(1000) NOT NULL,
      document longtext NOT NULL,
      words int NOT NULL,
      links int NOT NULL,
      name varchar(200) NULL,
      createdAt datetime(3) NOT NULL,
      INDEX IDX_chapter_version_chapter (chapterId, createdAt),
      INDEX IDX_chapter_version_book (bookId),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE book_step (
      id char(36) NOT NULL,
      bookId char(36) NOT NULL,
      kind varchar(20) NOT NULL,
      summary text NOT NULL,
      changes longtext NOT NULL,
      createdAt datetime(3) NOT NULL,
      undoneAt datetime(3) NULL,
      INDEX IDX_book_step_book (bookId, createdAt),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ["book_step", "chapter_version", "place"]) await runner.query(`DROP TABLE ${table}`);
    await runner.query("ALTER TABLE stored_file DROP role, DROP changedAt");
    await runner.query("ALTER TABLE link_use DROP description, DROP coverage, DROP heading");
    await runner.query("ALTER TABLE chapter DROP role");
  }
}
