// The order in which tests are tried on a change of the code: what takes least first, so that a change that is noticed is noticed soon.
import Sequencer from '@jest/test-sequencer';

export default class FastestFirst extends Sequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => (a.duration ?? Infinity) - (b.duration ?? Infinity));
  }
}
