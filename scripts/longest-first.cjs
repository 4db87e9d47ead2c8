// The order of test files. On a machine that has run none of them Jest goes by their size, which says nothing of interface tests:
// the one that happens to come last would keep a core waiting for minutes.
const Sequencer = require('@jest/test-sequencer').default;

const LONGEST = ['yard', 'land', 'begin', 'abuse', 'views', 'slopes', 'ground', 'water', 'build'];
const rank = ({ path }) => LONGEST.indexOf(/([a-z]+)\.e2e\.ts$/.exec(path)?.[1] ?? '');

module.exports = class extends Sequencer {
  sort(tests) {
    const pages = tests.filter((test) => rank(test) >= 0).sort((a, b) => rank(a) - rank(b));
    return [...super.sort(tests.filter((test) => rank(test) < 0)), ...pages];
  }
};
