/** Sentences for the core's codes and the API's errors, in English. Placeholders in braces are filled by `say`. */
import type {
  ComparisonCode,
  DoubtCode,
  JobState,
  LeftOutCode,
  PowerNeed,
  ProblemCode,
  ReasonCode,
  UnusedCode,
  Verdict,
} from '@veglia/core';
import type { ErrorCode } from '../errors.ts';

export interface Words {
  readonly verdict: Record<Verdict, string>;
  readonly reason: Record<ReasonCode, string>;
  readonly comparison: Record<ComparisonCode, string>;
  readonly unused: Record<UnusedCode, string>;
  readonly doubt: Record<DoubtCode, string>;
  readonly leftOut: Record<LeftOutCode, string>;
  readonly need: Record<PowerNeed, string>;
  readonly jobState: Record<JobState, string>;
  readonly problem: Record<ProblemCode, string>;
  readonly error: Record<ErrorCode, string>;
}

export const en: Words = {
  verdict: {
    cleared: 'Ruled out',
    suspect: 'Suspect',
    'likely-not-split': 'Likely, not split',
    proven: 'Proven',
  },
  reason: {
    'code-first': 'Read the blink code before anything heats, swaps, resets or cleans: it may not come back.',
    'needed-for-proof': '{of} is likely, but this is missing before it may be called proven.',
    'most-bits-per-minute': 'Tells most for its time: about {share} of the doubt goes in {minutes} min.',
    'list-order': 'Number {position} on the fixed list for this layout.',
    proven: '{of} is proven. Nothing left to test first.',
    'likeliest-left': '{of} is the likeliest, but not proven: a guess, and a dear one if wrong.',
    'chosen-anyway': 'Chosen by you: about {share} of the doubt goes in {minutes} min.',
    'least-cost': 'Cheapest way on: saves about {saves} of the {toEnd} this is likely to cost to the end.',
    'cheaper-than-testing': 'No further test pays for itself: trying this is the cheapest way on, about {toEnd} to the end. Not proven.',
    'repair-before-test': 'Trying this now is cheaper than testing first: about {toEnd} to the end. Not proven.',
    'give-up-question':
      'Going on is likely to cost as much as a comparable new set ({toEnd}). Put it to the customer: stop here, or go on all the same?',
    'does-not-pay': 'Tells about {share} of the doubt in {minutes} min, but saves less than it costs.',
    'nothing-tells-more': 'Can’t tell yet: no step left in the book tells more about this set.',
  },
  comparison: {
    'code-cant-wait': 'Before “{other}”: that may go by any step, this code may be gone after it.',
    'split-before-part': 'Before “{other}”: it settles what the verdict still rests on.',
    'saves-more-for-its-price': 'Before “{other}”: it saves {mine} for each {unit} it costs, that one {theirs}.',
    'test-before-part': 'Before “{other}”: testing first makes the way to the end about {saves} cheaper than beginning with that.',
    'part-before-test':
      'Before “{other}”: where it cures ({chance}), that test is spared, and this costs less than what the test would save.',
    'cures-more-for-its-price':
      'Before “{other}”: cures with {chance} for about {price}; that one with {otherChance} for about {otherPrice}.',
    'other-does-not-pay': 'Before “{other}”: that one costs more than it is likely to save.',
    'tells-more-for-its-time':
      'Before “{other}”: about {share} of the doubt in {minutes} min; that one {otherShare} in {otherMinutes} min.',
    'earlier-on-list': 'Before “{other}”: number {position} on the list, that one number {otherPosition}.',
    'proven-before-test': 'Before “{other}”: it is proven; a further test changes nothing.',
  },
  unused: {
    'unknown-test': 'Kept, not used: this knowledge pack has no test called {id}.',
    'unknown-outcome': 'Kept, not used: the test has no outcome called {id}.',
    'unknown-symptom': 'Kept, not used: this knowledge pack has no symptom called {id}.',
    'unknown-family': 'Kept, not used: this knowledge pack has no family called {id}.',
    'unknown-layout': 'Kept, not used: this knowledge pack has no layout called {id}.',
    'unknown-repair': 'Kept, not used: this knowledge pack has no repair called {id}.',
    'no-blink-table': 'Kept, not used: no blink table for this family. Another family’s table says nothing here.',
    'said-nothing': 'No evidence either way.',
    'could-not-change': 'No information: this cut could not have changed this complaint.',
    'symptom-was-absent': 'No information: the symptom was not there at the time.',
    'plug-left-out': 'Void: {id} was still unplugged during the test.',
    'wrong-layout': 'Kept, not used: this test belongs to another layout.',
    'earlier-fault': 'Not counted: it belongs to the fault before this one.',
    'object-missing': 'Kept, not used: which part {id} was done on is missing.',
  },
  doubt: {
    'answers-disagree': 'Two answers to {id} disagree. Both are kept; neither counts for much until it is done again.',
    'blink-read-once': 'The code was read once only: odds over neighbouring counts. Watch one more cycle.',
    'count-not-in-table': 'This family has no such code: likely a miscount (nearest: {id}), or no code at all. Count again.',
    'code-not-read-first': '{id} was done before the blink code was read; the code may be gone.',
    'fits-nothing-well': 'No single fault in the book explains all this well: think of two faults or a wrong answer.',
    'layout-not-certain': 'The layout is not certain: {percent} for the likeliest. Correct it once the back is off.',
    'outside-scope': '{id} was done for a complaint it is not meant for; it counts less.',
    'symptom-changed': 'The symptom changed after a repair: a second fault. The case goes on from what still holds.',
    'may-be-two': 'Two faults explain this better than any single one ({percent}).',
  },
  leftOut: {
    answered: 'answered already',
    'not-possible': 'not possible on this set',
    'could-not-change': 'could not change this complaint',
    'other-symptom': 'belongs to another complaint',
    'other-set': 'made for another model or version',
    'tool-missing': 'needs a tool that isn’t at hand',
    pointless: 'would tell nothing more',
    'code-first': 'waits until the blink code is read',
  },
  need: {
    any: 'Any state',
    plugged: 'Plugged in',
    unplugged: 'Unplugged',
    'rails-down': 'Unplugged, rails down',
    verified: 'Unplugged and verified',
  },
  jobState: { 'taken-in': 'Taken in', 'on-the-bench': 'On the bench', closed: 'Closed' },
  problem: {
    schema: '{where}: {expected}',
    'not-json': '{where}: not valid JSON ({expected})',
    'not-readable': '{where}: can’t be read ({expected})',
    'duplicate-id': '{where}: {value} is there twice',
    'unknown-id': '{where}: {value} is not a known {expected}',
    'row-sum': '{where}: the words of this row add up to {value}, which is outside {expected}; one of them is wrong',
    'row-rest-twice': '{where}: only one outcome may be "rest", found {value}',
    'row-missing-default': '{where}: a row for "*" is missing',
    'row-repeated': '{where}: two rows speak for {value}',
    'likelihood-no-fallback': '{where}: the last block must hold without a condition',
    'exception-without-reason': '{where}: {value} departs from what the cut says of its side; give a reason',
    'graph-cycle': '{where}: something feeds itself',
    'graph-unreachable': '{where}: nothing feeds {value}',
    'pull-not-restored': '{where}: {value} is pulled and never put back',
    'pull-under-power': '{where}: pulls a plug inside while the set is plugged in',
    'procedure-without-caution': '{where}: a dangerous step needs {expected}',
    'code-before-disturbance': '{where}: heats, swaps, resets or cleans, so it must say that it disturbs the code',
    'word-unknown': '{where}: {value} is not a word of the {expected} scale',
    'proof-missing': '{where}: no proof requirement for {value}',
    'alias-to-nowhere': '{where}: {value} does not exist',
    'list-unknown-test': '{where}: {value} is not a test of this layout',
    'entry-kind-unknown': '{where}: {value} is not a kind of entry',
    'entry-version-unknown': '{where}: version {value} can’t be read, known are {expected}',
    'entry-order': '{where}: {value} is out of order, expected {expected}',
    'retraction-without-target': '{where}: there is no entry {value} to take back',
    'never-applies': '{where}: no layout has what this needs, so it is never seen',
    'state-unreachable': '{where}: no set can be in the state for “{value}” at that point of the procedure',
    'opposite-meanings': '{where}: does the same as {expected}, but {value} are moved the opposite way; give a reason',
    'outcome-not-observable': '{where}: {value} outcomes say nothing of what is seen; expected {expected}',
    'pack-hash-differs': '{where}: the case was worked with pack {value}, but {expected} is loaded',
  },
  error: {
    'bad-request': 'Something in what was sent can’t be used. Nothing was stored; what you typed is still here.',
    'not-json': 'The request is not valid JSON. Nothing was stored.',
    'too-large': 'That is more than one request may carry. Nothing was stored.',
    'not-found': 'There is nothing at this address.',
    'unknown-job': 'There is no such job.',
    'unknown-pack': 'This knowledge pack is not stored here.',
    'settings-moved-on': 'Somebody else has changed the settings in the meantime. Look at theirs, then change them again.',
    'unknown-customer': 'This customer is not known here any more.',
    'unknown-counts': 'There are no counts with this number here.',
    'unknown-person': 'The person who is writing is not known here. Nothing was stored.',
    'entry-conflict': 'An entry with this id says something else already. The stored one was kept.',
    'job-moved-on': 'Somebody wrote to this job meanwhile. Look at the new entries, then close again. Nothing was stored.',
    'database-away': 'The database does not answer. Nothing was stored; try again in a moment.',
    internal: 'That is a fault of ours. Nothing was stored; the request id tells which.',
  },
};
