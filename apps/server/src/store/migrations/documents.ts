import type { MigrationInterface, QueryRunner } from 'typeorm';

type Row = Record<string, unknown>;

/** The known keys of each part of the file as the tables before kept them, each a column; lists and objects were JSON in theirs. */
const COLUMNS = {
  tree: ['name', 'species', 'vigour', 'styledOn', 'repottedOn', 'collectedOn', 'site', 'pot', 'trunk', 'roots'],
  branch: ['id', 'name', 'parent', 'at', 'bearing', 'elevation', 'length', 'd', 'tipD', 'path', 'bareTo', 'green', 'state', 'stage', 'backBuds'],
  feature: ['kind', 'bearing', 'z', 'good', 'weight'],
  decision: ['branch', 'act'],
  pose: ['branch', 'bearing', 'elevation', 'bends'],
  run: ['id', 'metal', 'size', 'strands', 'angle'],
  run_branch: ['branch', 'hand', 'start'],
  guy: ['id', 'branch', 'at', 'anchor', 'wire'],
};
const JSON_COLUMNS = new Set(['site', 'pot', 'trunk', 'roots', 'path', 'z', 'bends', 'anchor', 'styledOn', 'repottedOn', 'collectedOn']);
const YES_NO = new Set(['backBuds', 'good']);

const parsed = (text: unknown): unknown => (text === null || text === undefined ? null : JSON.parse(text as string));

/** A row of the tables before as the part of the file that it was. */
function partOf(row: Row, columns: readonly string[]): Row {
  const value = (key: string): unknown => (JSON_COLUMNS.has(key) ? parsed(row[key]) : YES_NO.has(key) ? Boolean(row[key]) : row[key]);
  const entries = columns.map((key) => [key, value(key)] as const).filter(([, v]) => v !== null && v !== undefined);
  return { ...Object.fromEntries(entries), ...(parsed(row.extra) as Row) };
}

/** A tree's measured part and plan become documents, its acts rows; what was decided and recorded comes along, undo begins anew. */
export class Documents1795000000000 implements MigrationInterface {
  readonly name = 'Documents1795000000000';

  async up(runner: QueryRunner): Promise<void> {
    const all = (sql: string, ...values: unknown[]): Promise<Row[]> => runner.query(sql, values) as Promise<Row[]>;
    const parts = async (table: keyof typeof COLUMNS, tree: unknown): Promise<Row[]> =>
      (await all(`SELECT * FROM "${table}" WHERE "treeId" = ? ORDER BY "ordinal"`, tree)).map((row) => partOf(row, COLUMNS[table]));

    const trees = await all('SELECT * FROM "tree"');
    const documents: { row: Row; own: Row; plan: Row; recorded: number }[] = [];
    for (const row of trees) {
      const winds = await all('SELECT * FROM "run_branch" WHERE "treeId" = ? ORDER BY "ordinal"', row.id);
      const runs = await parts('run', row.id);
      const front = parsed(row.front);
      documents.push({
        row,
        own: {
          format: 'ustle-tree',
          version: 1,
          ...partOf(row, COLUMNS.tree),
          branches: await parts('branch', row.id),
          features: await parts('feature', row.id),
        },
        plan: {
          ...(front ? { front } : {}),
          decisions: await parts('decision', row.id),
          poses: await parts('pose', row.id),
          runs: runs.map((run) => ({ ...run, branches: winds.filter((w) => w.run === run.id).map((w) => partOf(w, COLUMNS.run_branch)) })),
          guys: await parts('guy', row.id),
          ...(parsed(row.planExtra) as Row),
        },
        recorded: Number((await all('SELECT COUNT(*) AS n FROM "record" WHERE "treeId" = ?', row.id))[0]!.n),
      });
    }
    const lines = await all('SELECT * FROM "record" ORDER BY "treeId", "ordinal"');

    for (const table of ['plan_command', 'record', 'guy', 'run_branch', 'run', 'pose', 'decision', 'feature', 'branch', 'tree']) {
      await runner.query(`DROP TABLE "${table}"`);
    }
    const statements = [
      `CREATE TABLE "tree" ("id" text PRIMARY KEY, "revision" integer NOT NULL, "name" text NOT NULL, "species" text NOT NULL,
        "recorded" integer NOT NULL, "plan" text NOT NULL, "archivedOn" text)`,
      // Apart from the plan, so that a decision does not write all measures again.
      'CREATE TABLE "measures" ("treeId" text PRIMARY KEY REFERENCES "tree"("id") ON DELETE CASCADE, "document" text NOT NULL)',
      `CREATE TABLE "line" ("treeId" text NOT NULL REFERENCES "tree"("id"), "ordinal" integer NOT NULL, "lineId" text NOT NULL, "on_day" text NOT NULL,
        "kind" text NOT NULL, "document" text NOT NULL, PRIMARY KEY ("treeId", "ordinal"))`,
      'CREATE UNIQUE INDEX "line_id" ON "line" ("treeId", "lineId")',
      `CREATE TABLE "act" ("ordinal" integer PRIMARY KEY AUTOINCREMENT, "id" text NOT NULL UNIQUE, "treeId" text NOT NULL REFERENCES "tree"("id"),
        "kind" text NOT NULL, "document" text NOT NULL, "lines" text NOT NULL, "of" text)`,
      'CREATE INDEX "act_tree" ON "act" ("treeId", "ordinal")',
      'CREATE TABLE "before" ("act" text PRIMARY KEY REFERENCES "act"("id"), "treeId" text NOT NULL, "document" text NOT NULL)',
      ...['line', 'act'].flatMap((table) => [
        `CREATE TRIGGER "${table}_no_update" BEFORE UPDATE ON "${table}" BEGIN SELECT RAISE(ABORT, 'what was done stays'); END`,
        `CREATE TRIGGER "${table}_no_delete" BEFORE DELETE ON "${table}"
          WHEN NOT EXISTS (SELECT 1 FROM "forgotten" WHERE "treeId" = OLD."treeId") BEGIN SELECT RAISE(ABORT, 'what was done stays'); END`,
      ]),
      // A tree that its owner deletes for good is named here first; of no other one can a line go.
      'CREATE TABLE "forgotten" ("treeId" text PRIMARY KEY)',
    ];
    for (const statement of statements) await runner.query(statement);

    for (const { row, own, plan, recorded } of documents) {
      await all('INSERT INTO "tree" VALUES (?, ?, ?, ?, ?, ?, NULL)', row.id, row.revision, row.name, row.species, recorded, JSON.stringify(plan));
      await all('INSERT INTO "measures" VALUES (?, ?)', row.id, JSON.stringify(own));
    }
    for (const l of lines) await all('INSERT INTO "line" VALUES (?, ?, ?, ?, ?, ?)', l.treeId, l.ordinal, l.entryId, l.on_day, l.kind, l.entry);
  }

  down(): Promise<void> {
    return Promise.reject(new Error('There is no way back from documents to tables: restore a backup.'));
  }
}
