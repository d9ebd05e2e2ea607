import type { MigrationInterface, QueryRunner } from "typeorm";

/** What goes with what: the table, its column, the table that it belongs to. */
const belongings: [table: string, column: string, owner: string, name: string][] = [
  ["session", "accountId", "account", "FK_session_account"],
  ["book", "accountId", "account", "FK_book_account"],
  ["chapter", "bookId", "book", "FK_chapter_book"],
  ["link_use", "chapterId", "chapter", "FK_link_use_chapter"],
  ["place", "chapterId", "chapter", "FK_place_chapter"],
  ["chapter_version", "chapterId", "chapter", "FK_chapter_version_chapter"],
  ["book_step", "bookId", "book", "FK_book_step_book"],
  ["acceptance", "bookId", "book", "FK_acceptance_book"],
  ["stored_file", "bookId", "book", "FK_stored_file_book"],
  ["file_chunk", "fileId", "stored_file", "FK_file_chunk_file"],
  ["job", "bookId", "book", "FK_job_book"],
  ["export", "bookId", "book", "FK_export_book"],
  ["export", "fileId", "stored_file", "FK_export_file"],
  ["reach_ask", "jobId", "job", "FK_reach_ask_job"],
  ["reach_answer", "bookId", "book", "FK_reach_answer_book"],
  ["reach_outcome", "bookId", "book", "FK_reach_outcome_book"],
  ["reach_run", "bookId", "book", "FK_reach_run_book"],
];
const notingWho = ["chapter_version", "book_step", "acceptance", "job", "export"];

/**
 * The ledger keeps what is asked of it as columns, exports their proof in numbers, writes who made them; what belongs
 * to a book goes with it by foreign keys. The ledger's new columns are filled from the documents at the next start.
 */
export class House1764000000008 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE link_use ADD fileId varchar(64) NULL, ADD placeId varchar(64) NULL, ADD askedAddress text NULL, ADD host varchar(300) NULL, ADD INDEX IDX_link_use_file (bookId, fileId), ADD INDEX IDX_link_use_place (bookId, placeId)",
    );
    // The ledger is derived from the documents; chapters without places are read anew at the start.
    await runner.query("DELETE FROM link_use");
    await runner.query("DELETE FROM place");
    for (const table of notingWho) await runner.query(`ALTER TABLE ${table} ADD accountId char(36) NULL`);
    await runner.query("ALTER TABLE job ADD output longtext NULL, MODIFY bookId char(36) NULL");
    await runner.query("ALTER TABLE stored_file MODIFY bookId char(36) NULL");
    await runner.query(
      "ALTER TABLE export ADD complete tinyint NOT NULL DEFAULT 0, ADD intact int unsigned NOT NULL DEFAULT 0, ADD total int unsigned NOT NULL DEFAULT 0, ADD extra int unsigned NOT NULL DEFAULT 0, ADD madeWrong int unsigned NOT NULL DEFAULT 0, ADD INDEX IDX_export_book_format (bookId, format, createdAt), ADD INDEX IDX_export_file (fileId)",
    );
    await runner.query(
      `UPDATE export SET complete = IF(JSON_VALUE(proof, '$.complete'), 1, 0), intact = JSON_VALUE(proof, '$.intact'), total = JSON_VALUE(proof, '$.total'),
         extra = JSON_LENGTH(proof, '$.extra'), madeWrong = COALESCE(JSON_VALUE(proof, '$.made.total') - JSON_VALUE(proof, '$.made.intact'), 0)`,
    );
    await runner.query(
      "ALTER TABLE export MODIFY complete tinyint NOT NULL, MODIFY intact int unsigned NOT NULL, MODIFY total int unsigned NOT NULL, MODIFY extra int unsigned NOT NULL, MODIFY madeWrong int unsigned NOT NULL",
    );
    await runner.query("ALTER TABLE session ADD INDEX IDX_session_expiry (expiresAt)");
    for (const [table, column, owner, name] of belongings) {
      await runner.query(
        `DELETE t FROM \`${table}\` t LEFT JOIN \`${owner}\` o ON o.id = t.${column} WHERE t.${column} IS NOT NULL AND o.id IS NULL`,
      );
      await runner.query(
        `ALTER TABLE \`${table}\` ADD CONSTRAINT ${name} FOREIGN KEY (${column}) REFERENCES \`${owner}\`(id) ON DELETE CASCADE ON UPDATE NO ACTION`,
      );
    }
    // The index by book and format begins with the book, so the one by book alone is not needed.
    await runner.query("ALTER TABLE export DROP INDEX IDX_7c96fd14b517e86a9309897b2d");
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [table, , , name] of belongings)
      await runner.query(`ALTER TABLE \`${table}\` DROP FOREIGN KEY ${name}`);
    await runner.query("ALTER TABLE session DROP INDEX IDX_session_expiry");
    await runner.query(
      "ALTER TABLE export DROP complete, DROP intact, DROP total, DROP extra, DROP madeWrong, DROP INDEX IDX_export_book_format, DROP INDEX IDX_export_file, ADD INDEX IDX_7c96fd14b517e86a9309897b2d (bookId)",
    );
    await runner.query("ALTER TABLE stored_file MODIFY bookId char(36) NOT NULL");
    await runner.query("ALTER TABLE job DROP output, MODIFY bookId char(36) NOT NULL");
    for (const table of notingWho) await runner.query(`ALTER TABLE ${table} DROP accountId`);
    await runner.query(
      "ALTER TABLE link_use DROP fileId, DROP placeId, DROP askedAddress, DROP host, DROP INDEX IDX_link_use_file, DROP INDEX IDX_link_use_place",
    );
  }
}
