import fc from 'fast-check';
import type { TSchema } from '@sinclair/typebox';
import { ACT, ACT_NAMES, dayOf, EMPTY_LOG, perform, type Act, type ActName, type Log, type Tree } from '../src/index.js';

export const TODAY = dayOf('2026-11-26');
const IDS = ['b1', 'b2', 'b3', 'b4', 'b7', 'nobody'];

/** Any value that a description allows; branches are mostly those that a small tree has. */
export function anyOf(schema: TSchema, key = ''): fc.Arbitrary<unknown> {
  if (schema.anyOf) return fc.oneof({ weight: 3, arbitrary: anyOf((schema.anyOf as TSchema[])[0]!, key) }, { weight: 1, arbitrary: fc.constant(null) });
  if (schema.oneOf) return fc.oneof(...(schema.oneOf as TSchema[]).map((s) => anyOf(s)));
  if (schema.const !== undefined) return fc.constant(schema.const);
  if (schema.enum) return fc.constantFrom(...(schema.enum as string[]));
  switch (schema.type) {
    case 'boolean':
      return fc.boolean();
    case 'integer':
      return fc.integer({ min: schema.minimum as number, max: Math.min((schema.minimum as number) + 9, schema.maximum as number) });
    case 'number':
      return fc.double({ min: schema.minimum as number, max: schema.maximum as number, noNaN: true }).map((x) => Math.round(x * 100) / 100);
    case 'array':
      return fc.array(anyOf(schema.items as TSchema, key), {
        minLength: (schema.minItems as number) || 0,
        maxLength: Math.max(2, (schema.minItems as number) || 0),
      });
    case 'object': {
      const fields = Object.entries((schema.properties ?? {}) as Record<string, TSchema>).map(([k, s]) => [k, anyOf(s, k)] as const);
      const requiredKeys = (schema.required as string[] | undefined) ?? [];
      return fc.record(Object.fromEntries(fields), { requiredKeys });
    }
    default:
      if (schema.format) return fc.constantFrom('2025-03-01', '2026-10-10', '2026-11-26', '2026-11-27');
      if (key === 'profile') return fc.constantFrom('clump', 'refinement', 'wild');
      if (key === 'corrects' || key === 'again') return fc.nat(40).map((n) => `a${n}`);
      return schema.pattern && !schema.maxLength ? fc.constantFrom(...IDS) : fc.string({ maxLength: 8, minLength: (schema.minLength as number) || 0 });
  }
}
export const anyAct = anyOf(ACT) as fc.Arbitrary<Act>;

/** Acts of one or two kinds only: what fills a list up. */
export const anyRowOfFew = fc.tuple(fc.constantFrom(...ACT_NAMES), fc.constantFrom(...ACT_NAMES)).chain((kinds) =>
  fc.array(anyOf({ oneOf: (ACT.oneOf as TSchema[]).filter((s) => kinds.includes(s.title as ActName)) } as unknown as TSchema) as fc.Arbitrary<Act>, {
    minLength: 30,
    maxLength: 30,
  }),
);

export interface Run {
  tree: Tree;
  log: Log;
  done: Act[];
}
export const run = (start: Tree, acts: readonly Act[]): Run =>
  acts.reduce<Run>(
    (now, act) => {
      const result = perform(now.tree, now.log, act, TODAY);
      return 'refused' in result ? now : { tree: result.tree, log: result.log, done: [...now.done, act] };
    },
    { tree: start, log: EMPTY_LOG, done: [] },
  );
/** As they are made: each with an id of its own. */
export const numbered = (acts: readonly Act[]): Act[] => acts.map((act, i) => ({ ...act, id: `a${i}` }));
