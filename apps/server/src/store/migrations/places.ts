import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The order in which trees stand along their bench; until now it was that of their names. */
export class Places1799000000000 implements MigrationInterface {
  readonly name = 'Places1799000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "stands" ADD COLUMN "ordinal" integer NOT NULL DEFAULT 0');
    await runner.query(`UPDATE "stands" SET "ordinal" = (
      SELECT count(*) FROM "stands" "o" JOIN "tree" "ot" ON "ot"."id" = "o"."treeId" JOIN "tree" "t" ON "t"."id" = "stands"."treeId"
      WHERE "o"."benchId" = "stands"."benchId" AND "ot"."name" || "ot"."id" < "t"."name" || "t"."id")`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "stands" DROP COLUMN "ordinal"');
  }
}
