import type { MigrationInterface, QueryRunner } from "typeorm";

/** Of a chapter it is known which links and places its rows tell, so that a save that changes none writes none. */
export class LedgerHashes1764000000023 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE chapter ADD linksHash char(64) NULL, ADD placesHash char(64) NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE chapter DROP COLUMN linksHash, DROP COLUMN placesHash");
  }
}
