import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of linked pages it is kept what they were like, what of that has changed, and when somebody looked at them. */
export class Fingerprints1764000000020 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE reach_outcome ADD fingerprint longtext NULL, ADD latest longtext NULL, ADD changed longtext NULL, ADD changedAt datetime(3) NULL, ADD lookedAt datetime(3) NULL",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE reach_outcome DROP COLUMN fingerprint, DROP COLUMN latest, DROP COLUMN changed, DROP COLUMN changedAt, DROP COLUMN lookedAt",
    );
  }
}
