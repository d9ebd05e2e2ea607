import type { MigrationInterface, QueryRunner } from "typeorm";

/** Every destination has an outcome of its own with its history; runs are kept, shared and planned; a book has an audience. */
export class ReachInFull1764000000005 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE link_use ADD destinationHash char(64) NULL");
    await runner.query(
      "UPDATE link_use SET destinationHash = SHA2(destination, 256) WHERE askedHash IS NOT NULL OR kind = 'email'",
    );
    await runner.query("UPDATE link_use SET askedHash = destinationHash WHERE kind = 'email'");
    await runner.query("ALTER TABLE link_use ADD INDEX IDX_link_use_destination (bookId, destinationHash)");
    // What an address answered is soon asked anew; how it was for each of its parts is not known.
    await runner.query("DROP TABLE reach_outcome");
    await runner.query(`CREATE TABLE reach_outcome (
      bookId char(36) NOT NULL,
      destinationHash char(64) NOT NULL,
      state varchar(10) NOT NULL,
      code varchar(30) NOT NULL,
      hops longtext NOT NULL,
      movedTo text NULL,
      title varchar(300) NULL,
      secure text NULL,
      checkedAt datetime(3) NOT NULL,
      since datetime(3) NOT NULL,
      previous varchar(10) NULL,
      lastSoundAt datetime(3) NULL,
      PRIMARY KEY (bookId, destinationHash)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE reach_answer (
      id bigint NOT NULL AUTO_INCREMENT,
      bookId char(36) NOT NULL,
      destinationHash char(64) NOT NULL,
      state varchar(10) NOT NULL,
      code varchar(30) NOT NULL,
      status int NULL,
      movedTo text NULL,
      checkedAt datetime(3) NOT NULL,
      PRIMARY KEY (id),
      INDEX IDX_reach_answer_destination (bookId, destinationHash, id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE reach_ask (
      jobId char(36) NOT NULL,
      askedHash char(64) NOT NULL,
      host varchar(300) NOT NULL,
      address text NOT NULL,
      state varchar(10) NULL,
      PRIMARY KEY (jobId, askedHash),
      INDEX IDX_reach_ask_host (jobId, host, state)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE reach_run (
      jobId char(36) NOT NULL,
      bookId char(36) NOT NULL,
      startedAt datetime(3) NOT NULL,
      endedAt datetime(3) NULL,
      asked int NOT NULL DEFAULT 0,
      counts longtext NULL,
      newlyBroken int NOT NULL DEFAULT 0,
      wellAgain int NOT NULL DEFAULT 0,
      PRIMARY KEY (jobId),
      INDEX IDX_reach_run_book (bookId, startedAt)
    ) ENGINE=InnoDB`);
    await runner.query(
      "ALTER TABLE book ADD audience varchar(200) NOT NULL DEFAULT 'anyone', ADD freshHours int NOT NULL DEFAULT 24, ADD schedule varchar(100) NULL, ADD nextRunAt datetime(3) NULL, ADD INDEX IDX_book_next_run (nextRunAt)",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE book DROP INDEX IDX_book_next_run, DROP nextRunAt, DROP schedule, DROP freshHours, DROP audience",
    );
    for (const table of ["reach_run", "reach_ask", "reach_answer", "reach_outcome"])
      await runner.query(`DROP TABLE ${table}`);
    await runner.query(`CREATE TABLE reach_outcome (
      bookId char(36) NOT NULL,
      askedHash char(64) NOT NULL,
      state varchar(10) NOT NULL,
      code varchar(30) NOT NULL,
      hops longtext NOT NULL,
      movedTo text NULL,
      checkedAt datetime(3) NOT NULL,
      PRIMARY KEY (bookId, askedHash)
    ) ENGINE=InnoDB`);
    await runner.query("UPDATE link_use SET askedHash = NULL WHERE kind = 'email'");
    await runner.query("ALTER TABLE link_use DROP INDEX IDX_link_use_destination, DROP destinationHash");
  }
}
