import { Type, type Static } from '@sinclair/typebox';
import {
  ACT,
  BENCHES,
  FAULTS,
  figure,
  FORMS,
  HEMISPHERES,
  id,
  LINE_COMMON,
  list,
  mm,
  oneOf,
  optional,
  orNull,
  RACK_LINE,
  whole,
  words,
  yesNo,
} from '@ustle/core';
import { bodyClass } from './body-class.js';

export { descriptionOf, fieldFaults } from './body-class.js';

const REVISION = whole(1, 2147483647, '', 'the whole number that came with the tree');

const ACT_BODY = Type.Object({ act: ACT, revision: optional(REVISION) });
/** One act; a guarded one names the revision that it was made on. */
export class ActBody extends bodyClass('ActBody', ACT_BODY) {}

const STEP_BODY = Type.Object({
  id: id('made where the step is made'),
  kind: oneOf(['undo', 'redo'], 'which way'),
  revision: REVISION,
  of: optional(id('the act that is meant; without it the newest that this device did')),
  who: LINE_COMMON.who,
  desk: optional(id('the device that takes it back, or makes it again')),
});
/** The newest act of a device is taken back, or made again. */
export class StepBody extends bodyClass('StepBody', STEP_BODY) {}

const NEW_TREE = {
  id: optional(id('made where the tree is begun; sent twice, it is begun once')),
  name: words(120, 'its name', 1),
  species: words(60, 'key of its species', 1),
};
/** A tree to be measured. */
export class NewTreeBody extends bodyClass('NewTreeBody', Type.Object(NEW_TREE)) {}

const MADE_UP = Type.Object({
  ...NEW_TREE,
  seed: whole(0, 2147483647, '', 'the same seed makes the same tree'),
  age: optional(figure(3, 300, 'years', 'its age')),
  form: optional(oneOf(FORMS, 'its form')),
  faults: optional(list(oneOf(FAULTS, 'a fault'), 20, 'faults to be found')),
});
/** A tree made up by the program, to try things on. */
export class MadeUpBody extends bodyClass('MadeUpBody', MADE_UP) {}

const ASIDE = Type.Object({ aside: yesNo('put aside, or back on the bench') });
/** Where a tree is to be. */
export class AsideBody extends bodyClass('AsideBody', ASIDE) {}

const PRESS = Type.Object({ near: optional(mm(0.3, 400, 'about how thick it is, where that is known', 0.1)) });
/** What the caliper lies on; only the simulated caliper asks. */
export class CaliperPressBody extends bodyClass('CaliperPressBody', PRESS) {}

const SCALE_PRESS = Type.Object({ near: optional(figure(1, 20000, 'g', 'about what it weighs, where that is known', 0.1)) });
/** What lies on the scale; only the simulated scale asks. */
export class ScalePressBody extends bodyClass('ScalePressBody', SCALE_PRESS) {}

/** A line for the rack's history. */
export class RackLineBody extends bodyClass('RackLineBody', Type.Object({ line: RACK_LINE })) {}

/** The benches of the yard. */
export class BenchesBody extends bodyClass('BenchesBody', BENCHES) {}

/** The bench that a tree stands on. */
export class StandsBody extends bodyClass('StandsBody', Type.Object({ bench: orNull(id('the bench; null: none')) })) {}

/** The trees of a bench, in the order in which one walks past them. */
export class LineBody extends bodyClass('LineBody', Type.Object({ trees: list(id('a tree'), 1000, 'the trees along the bench') })) {}

const HALF = oneOf(HEMISPHERES, 'the half of the earth that the station stands on');
/** Whether growth is counted by the warmth of the yard's station. */
export class WeatherBody extends bodyClass('WeatherBody', Type.Object({ on: yesNo('counted by warmth'), hemisphere: optional(HALF) })) {}

/** What lets other devices in. */
export class PassphraseBody extends bodyClass('PassphraseBody', Type.Object({ passphrase: words(200, 'the passphrase', 8) })) {}

const PEOPLE = Type.Object({ people: list(words(80, 'a name'), 50, 'names') });
/** Those who work in the yard. */
export class PeopleBody extends bodyClass('PeopleBody', PEOPLE) {}

/** What a device says to be let in. */
export class EnterBody extends bodyClass('EnterBody', Type.Object({ passphrase: words(200, 'the passphrase') })) {}

/** What a yard has chosen, as the file of a whole studio holds it. */
export const SETTINGS = { people: optional(PEOPLE.properties.people), weather: optional(yesNo('growth is counted by warmth')), station: optional(HALF) };

export type MadeUp = Static<typeof MADE_UP>;
