import type { MigrationInterface, QueryRunner } from "typeorm";

/** What a run has yet to ask is told by an index, and how much of it there is without its addresses. */
export class AsksByState1764000000026 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE reach_ask ADD INDEX IDX_reach_ask_state (jobId, state, host), DROP INDEX IDX_reach_ask_host",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(
      "ALTER TABLE reach_ask ADD INDEX IDX_reach_ask_host (jobId, host, state), DROP INDEX IDX_reach_ask_state",
    );
  }
}
