import type { MigrationInterface, QueryRunner } from "typeorm";

export class FirstTables1764000000000 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE account (
      id char(36) NOT NULL,
      email varchar(255) NOT NULL,
      name varchar(200) NOT NULL,
      passwordHash varchar(255) NOT NULL,
      createdAt datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      UNIQUE INDEX IDX_4c8f96ccf523e9a3faefd5bdd4 (email),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE session (
      tokenHash char(64) NOT NULL,
      accountId char(36) NOT NULL,
      expiresAt datetime(3) NOT NULL,
      INDEX IDX_db27ab5fcaee7b52324fe2c8a2 (accountId),
      PRIMARY KEY (tokenHash)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE book (
      id char(36) NOT NULL,
      accountId char(36) NOT NULL,
      title varchar(500) NOT NULL,
      author varchar(200) NOT NULL,
      language varchar(35) NOT NULL DEFAULT 'en',
      modifiedAt datetime(3) NOT NULL,
      createdAt datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX IDX_5b0a79959c8187cb78c661dbb5 (accountId),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE chapter (
      id char(36) NOT NULL,
      bookId char(36) NOT NULL,
      position int NOT NULL,
      title varchar(1000) NOT NULL,
      document longtext NOT NULL,
      revision int NOT NULL DEFAULT '1',
      words int NOT NULL DEFAULT '0',
      deletedAt datetime(3) NULL,
      INDEX IDX_78bcf27515a3eb5c941f46fa9e (bookId, position),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE link_use (
      chapterId char(36) NOT NULL,
      ordinal int NOT NULL,
      bookId char(36) NOT NULL,
      linkId varchar(64) NOT NULL,
      kind varchar(10) NOT NULL,
      destination text NOT NULL,
      askedHash char(64) NULL,
      text text NOT NULL,
      INDEX IDX_e785f6f42893d59710fea66649 (bookId, askedHash),
      PRIMARY KEY (chapterId, ordinal)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE \`export\` (
      id char(36) NOT NULL,
      bookId char(36) NOT NULL,
      format varchar(10) NOT NULL,
      \`accessible\` tinyint NOT NULL,
      fileId char(36) NOT NULL,
      fileName varchar(255) NOT NULL,
      size int UNSIGNED NOT NULL,
      proof longtext NOT NULL,
      createdAt datetime(3) NOT NULL,
      INDEX IDX_7c96fd14b517e86a9309897b2d (bookId),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE stored_file (
      id char(36) NOT NULL,
      bookId char(36) NOT NULL,
      name varchar(255) NOT NULL,
      mediaType varchar(100) NOT NULL,
      size int UNSIGNED NOT NULL,
      sha256 char(64) NOT NULL,
      INDEX IDX_05a110a248485a87ccd62adaa4 (bookId),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE file_chunk (
      fileId char(36) NOT NULL,
      ordinal int NOT NULL,
      bytes mediumblob NOT NULL,
      PRIMARY KEY (fileId, ordinal)
    ) ENGINE=InnoDB`);
    await runner.query(`CREATE TABLE job (
      id char(36) NOT NULL,
      bookId char(36) NOT NULL,
      kind varchar(20) NOT NULL,
      state varchar(20) NOT NULL,
      input longtext NOT NULL,
      done int NOT NULL DEFAULT '0',
      total int NOT NULL DEFAULT '0',
      message text NOT NULL,
      createdAt datetime(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3),
      INDEX IDX_601ef8a59434591f31c3c294a7 (bookId),
      INDEX IDX_d4ad1c50002ead62808d6c1560 (state),
      PRIMARY KEY (id)
    ) ENGINE=InnoDB`);
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
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      "account",
      "session",
      "book",
      "chapter",
      "link_use",
      "export",
      "stored_file",
      "file_chunk",
      "job",
      "reach_outcome",
    ]) {
      await runner.query(`DROP TABLE \`${table}\``);
    }
  }
}
