import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The shop's own methods are a list beside its tools, holders, materials and machines. */
export class ShopMethods1760000000005 implements MigrationInterface {
  name = 'ShopMethods1760000000005';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE library_items DROP CONSTRAINT library_items_kind_check');
    await runner.query(`ALTER TABLE library_items ADD CONSTRAINT library_items_kind_check
      CHECK (kind IN ('tools', 'holders', 'materials', 'machines', 'methods'))`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM library_items WHERE kind = 'methods'`);
    await runner.query('ALTER TABLE library_items DROP CONSTRAINT library_items_kind_check');
    await runner.query(`ALTER TABLE library_items ADD CONSTRAINT library_items_kind_check
      CHECK (kind IN ('tools', 'holders', 'materials', 'machines'))`);
  }
}
