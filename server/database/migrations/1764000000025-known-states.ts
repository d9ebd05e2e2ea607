import type { MigrationInterface, QueryRunner } from "typeorm";

/** Whether what is known of a book's destinations has changed is read without reading all that is known of them. */
export class KnownStates1764000000025 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "CREATE INDEX IDX_reach_outcome_known ON reach_outcome (bookId, destinationHash, state, checkedAt)",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    // The foreign key stands on the primary key.
    await runner.query("DROP INDEX IDX_reach_outcome_known ON reach_outcome");
  }
}
