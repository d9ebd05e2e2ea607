import type { MigrationInterface, QueryRunner } from "typeorm";

/** Places tell the words that stand there. */
export class PlaceContext1764000000002 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    // Derived rows; they are written anew from the documents at the next start.
    await runner.query("DELETE FROM place");
    await runner.query("ALTER TABLE place ADD context varchar(100) NOT NULL DEFAULT ''");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE place DROP context");
  }
}
