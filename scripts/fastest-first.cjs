// The order in which tests are tried on a change of the code: what takes least first, so that a change that is noticed is noticed soon.
const { default: Sequencer } = require('@jest/test-sequencer');

module.exports = class FastestFirst extends Sequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => (a.duration ?? Infinity) - (b.duration ?? Infinity));
  }
};
