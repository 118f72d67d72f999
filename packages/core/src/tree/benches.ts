import { Type, type Static } from '@sinclair/typebox';
import { id, list, part, words } from './describe.js';

/** A bench in the yard: a place where trees stand. */
export const BENCH = part({ id: id('made where the bench is named'), name: words(60, 'what it is called', 1) }, 'a bench in the yard');
export type Bench = Static<typeof BENCH>;
/** The benches of a yard, in the order in which one walks past them. */
export const BENCHES = Type.Object({ benches: list(BENCH, 200, 'the benches, in walking order') });
