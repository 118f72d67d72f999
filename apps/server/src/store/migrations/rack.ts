import type { MigrationInterface, QueryRunner } from 'typeorm';

/** The rack: a history of its own, only ever added to. */
export class Rack1796000000000 implements MigrationInterface {
  readonly name = 'Rack1796000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE "rack_line" ("ordinal" integer PRIMARY KEY AUTOINCREMENT, "id" text NOT NULL UNIQUE, "on_day" text NOT NULL,
      "kind" text NOT NULL, "document" text NOT NULL, "recorded" text NOT NULL)`);
    for (const change of ['UPDATE', 'DELETE']) {
      await runner.query(
        `CREATE TRIGGER "rack_line_no_${change.toLowerCase()}" BEFORE ${change} ON "rack_line" BEGIN SELECT RAISE(ABORT, 'what was done stays'); END`,
      );
    }
    // What was cut from a roll is asked of all trees at once.
    await runner.query('CREATE INDEX "line_kind" ON "line" ("kind")');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX "line_kind"');
    await runner.query('DROP TABLE "rack_line"');
  }
}
