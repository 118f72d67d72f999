import type { MigrationInterface, QueryRunner } from 'typeorm';

const part = (table: string, columns: string): string => `CREATE TABLE "${table}" (
  "treeId" text NOT NULL REFERENCES "tree"("id") ON DELETE CASCADE, "ordinal" integer NOT NULL, ${columns},
  "extra" text NOT NULL, PRIMARY KEY ("treeId", "ordinal"))`;

/** The first shape of the database. */
export class TreesPlansRecord1764000000000 implements MigrationInterface {
  readonly name = 'TreesPlansRecord1764000000000';

  async up(runner: QueryRunner): Promise<void> {
    const statements = [
      `CREATE TABLE "tree" ("id" text PRIMARY KEY, "revision" integer NOT NULL, "name" text NOT NULL, "species" text NOT NULL, "vigour" text NOT NULL,
        "styledOn" text, "repottedOn" text, "collectedOn" text, "site" text NOT NULL, "pot" text NOT NULL, "trunk" text NOT NULL, "roots" text NOT NULL,
        "front" text, "extra" text NOT NULL, "planExtra" text NOT NULL)`,
      part(
        'branch',
        `"id" text NOT NULL, "name" text, "parent" text NOT NULL, "at" real NOT NULL, "bearing" real NOT NULL, "elevation" real NOT NULL,
        "length" real NOT NULL, "d" real NOT NULL, "tipD" real NOT NULL, "path" text, "bareTo" real NOT NULL, "green" real NOT NULL, "state" text NOT NULL,
        "stage" text NOT NULL, "backBuds" boolean NOT NULL`,
      ),
      'CREATE UNIQUE INDEX "branch_id" ON "branch" ("treeId", "id")',
      part('feature', '"kind" text NOT NULL, "bearing" real NOT NULL, "z" text NOT NULL, "good" boolean NOT NULL, "weight" real NOT NULL'),
      part('decision', '"branch" text NOT NULL, "act" text NOT NULL'),
      part('pose', '"branch" text NOT NULL, "bearing" real NOT NULL, "elevation" real NOT NULL, "bends" text NOT NULL'),
      part('run', '"id" text NOT NULL, "metal" text NOT NULL, "size" real NOT NULL, "strands" integer NOT NULL, "angle" real NOT NULL'),
      part('run_branch', '"run" text NOT NULL, "branch" text NOT NULL, "hand" text NOT NULL, "start" text NOT NULL'),
      part('guy', '"id" text NOT NULL, "branch" text NOT NULL, "at" real NOT NULL, "anchor" text NOT NULL, "wire" real NOT NULL'),
      `CREATE TABLE "record" ("treeId" text NOT NULL REFERENCES "tree"("id"), "ordinal" integer NOT NULL, "entryId" text NOT NULL, "on_day" text NOT NULL,
        "kind" text NOT NULL, "branch" text, "entry" text NOT NULL, PRIMARY KEY ("treeId", "ordinal"))`,
      'CREATE UNIQUE INDEX "record_entry" ON "record" ("treeId", "entryId")',
      `CREATE TRIGGER "record_no_update" BEFORE UPDATE ON "record" BEGIN SELECT RAISE(ABORT, 'the record only grows'); END`,
      `CREATE TRIGGER "record_no_delete" BEFORE DELETE ON "record" BEGIN SELECT RAISE(ABORT, 'the record only grows'); END`,
      `CREATE TABLE "plan_command" ("id" integer PRIMARY KEY AUTOINCREMENT, "treeId" text NOT NULL REFERENCES "tree"("id") ON DELETE CASCADE,
        "label" text NOT NULL, "before" text NOT NULL, "after" text NOT NULL, "undone" boolean NOT NULL)`,
      'CREATE INDEX "plan_command_tree" ON "plan_command" ("treeId", "id")',
    ];
    for (const statement of statements) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['plan_command', 'record', 'guy', 'run_branch', 'run', 'pose', 'decision', 'feature', 'branch', 'tree']) {
      await runner.query(`DROP TABLE "${table}"`);
    }
  }
}

/** A change to the plan that also wrote to the record remembers those lines. */
export class CommandsWithEntries1764100000000 implements MigrationInterface {
  readonly name = 'CommandsWithEntries1764100000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "plan_command" ADD COLUMN "entries" text');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "plan_command" DROP COLUMN "entries"');
  }
}
