import type { MigrationInterface, QueryRunner } from "typeorm";

/**
 * Sessions are told apart by their devices and times; links that go out by mail, and invitations. Email addresses are
 * told apart to the letter: `walkér@` is another's than `walker@`.
 */
export class AmongStrangers1764000000009 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE account MODIFY email varchar(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL",
    );
    await runner.query(
      `ALTER TABLE session ADD id char(36) NULL, ADD device varchar(300) NOT NULL DEFAULT '',
         ADD createdAt datetime(3) NULL, ADD lastSeenAt datetime(3) NULL`,
    );
    // A session lasts thirty days from its beginning.
    await runner.query(
      "UPDATE session SET id = UUID(), createdAt = expiresAt - INTERVAL 30 DAY, lastSeenAt = expiresAt - INTERVAL 30 DAY",
    );
    await runner.query(
      `ALTER TABLE session MODIFY id char(36) NOT NULL, MODIFY createdAt datetime(3) NOT NULL,
         MODIFY lastSeenAt datetime(3) NOT NULL, ALTER device DROP DEFAULT, ADD UNIQUE INDEX IDX_session_id (id)`,
    );
    await runner.query(
      `CREATE TABLE mailed_link (tokenHash char(64) NOT NULL PRIMARY KEY, accountId char(36) NOT NULL, purpose varchar(20) NOT NULL,
         email varchar(255) NULL, expiresAt datetime(3) NOT NULL, INDEX IDX_mailed_link_account (accountId),
         INDEX IDX_mailed_link_expiry (expiresAt),
         CONSTRAINT FK_mailed_link_account FOREIGN KEY (accountId) REFERENCES account(id) ON DELETE CASCADE ON UPDATE NO ACTION) ENGINE=InnoDB`,
    );
    await runner.query(
      "CREATE TABLE invitation (tokenHash char(64) NOT NULL PRIMARY KEY, expiresAt datetime(3) NOT NULL) ENGINE=InnoDB",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("DROP TABLE invitation");
    await runner.query("DROP TABLE mailed_link");
    await runner.query(
      "ALTER TABLE session DROP INDEX IDX_session_id, DROP COLUMN id, DROP COLUMN device, DROP COLUMN createdAt, DROP COLUMN lastSeenAt",
    );
    await runner.query(
      "ALTER TABLE account MODIFY email varchar(255) CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci NOT NULL",
    );
  }
}
