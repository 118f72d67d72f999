import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Benches with the trees that stand on them, what the yard has chosen, the notices it sent, and devices that were let in. */
export class Yard1797000000000 implements MigrationInterface {
  readonly name = 'Yard1797000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('CREATE TABLE "bench" ("id" text PRIMARY KEY NOT NULL, "ordinal" integer NOT NULL, "name" text NOT NULL)');
    await runner.query(`CREATE TABLE "stands" ("treeId" text PRIMARY KEY NOT NULL REFERENCES "tree" ("id") ON DELETE CASCADE,
      "benchId" text NOT NULL REFERENCES "bench" ("id") ON DELETE CASCADE)`);
    await runner.query('CREATE TABLE "setting" ("name" text PRIMARY KEY NOT NULL, "document" text NOT NULL)');
    await runner.query('CREATE TABLE "mail" ("id" text PRIMARY KEY NOT NULL, "on_day" text NOT NULL, "subject" text NOT NULL, "text" text NOT NULL)');
    await runner.query('CREATE TABLE "session" ("token" text PRIMARY KEY NOT NULL, "since" text NOT NULL)');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['session', 'mail', 'setting', 'stands', 'bench']) await runner.query(`DROP TABLE "${table}"`);
  }
}
