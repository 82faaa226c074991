/**
 * Long test files first, so that none of them runs alone at the end. Jest goes by what they took last time, which a fresh clone doesn't know. Seconds as
 * measured on two cores; one that is not named counts by its size.
 */
import Sequencer from '@jest/test-sequencer';

const seconds = {
  'demoCommand.test.ts': 125,
  'backup.test.ts': 66,
  'accounts.test.ts': 46,
  'programmer.test.ts': 35,
  'operation.test.ts': 34,
  'database.test.ts': 30,
  'attacks.test.ts': 27,
  'files.test.ts': 20,
  'play.test.ts': 61,
  'elimination.test.ts': 46,
  'packReport.test.ts': 30,
  'played.test.ts': 28,
  'posterior.test.ts': 24,
  'safety.test.ts': 24,
  'arrows.test.ts': 14,
};
const lengthOf = ({ path }) => seconds[path.slice(path.lastIndexOf('/') + 1)] ?? 0;

export default class LongestFirst extends Sequencer {
  sort(tests) {
    return [...super.sort(tests)].sort((a, b) => lengthOf(b) - lengthOf(a));
  }
}
