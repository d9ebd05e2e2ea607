import type { MigrationInterface, QueryRunner } from "typeorm";

/** A proof tells what else of a file does something to links. */
export class ProofFaults1764000000010 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE export ADD faults int unsigned NOT NULL DEFAULT 0");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE export DROP COLUMN faults");
  }
}
