import type { MigrationInterface, QueryRunner } from "typeorm";

/** An export keeps all that was chosen for it, of which text it was made, how long it took, and what it warned of; a book keeps presets. */
export class ExportsInFull1764000000007 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book ADD presets longtext NULL");
    await runner.query(
      "ALTER TABLE export ADD options longtext NULL, ADD warnings longtext NULL, ADD tookMs int unsigned NOT NULL DEFAULT 0, ADD revision int unsigned NOT NULL DEFAULT 0, ADD textAt datetime(3) NULL",
    );
    await runner.query(
      `UPDATE export SET textAt = createdAt, warnings = '[]', options = CONCAT('{"format":"', format, '","accessible":', IF(export.accessible, 'true', 'false'), ',"addresses":"', addresses, '","companions":"beside","pages":"one","fonts":false,"pageList":false,"layout":null}')`,
    );
    await runner.query(
      "ALTER TABLE export MODIFY options longtext NOT NULL, MODIFY warnings longtext NOT NULL, MODIFY tookMs int unsigned NOT NULL, MODIFY revision int unsigned NOT NULL, MODIFY textAt datetime(3) NOT NULL, DROP `accessible`, DROP addresses",
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book DROP presets");
    await runner.query(
      "ALTER TABLE export ADD `accessible` tinyint NOT NULL DEFAULT 1, ADD addresses varchar(10) NOT NULL DEFAULT 'none'",
    );
    await runner.query(
      "ALTER TABLE export DROP options, DROP warnings, DROP tookMs, DROP revision, DROP textAt",
    );
  }
}
