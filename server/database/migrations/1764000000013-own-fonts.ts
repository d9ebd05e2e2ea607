import type { MigrationInterface, QueryRunner } from "typeorm";

/** Books are set in fonts that their authors bring. */
export class OwnFonts1764000000013 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE stored_file ADD font longtext NULL");
    await runner.query("ALTER TABLE book ADD fonts longtext NULL");
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query("ALTER TABLE book DROP COLUMN fonts");
    await runner.query("ALTER TABLE stored_file DROP COLUMN font");
  }
}
