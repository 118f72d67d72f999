import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Whose an act is, and the revision that it made of its tree. */
export class Desks1798000000000 implements MigrationInterface {
  readonly name = 'Desks1798000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE "act" ADD COLUMN "desk" text');
    await runner.query('ALTER TABLE "act" ADD COLUMN "revision" integer');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['revision', 'desk']) await runner.query(`ALTER TABLE "act" DROP COLUMN "${column}"`);
  }
}
