/** The way to a proof that is named is the one with the fewest minutes for its chance, counted anew from the pack's rows. */
import { expect, test } from '@jest/globals';
import { caseOf, referenceCases, shipped, type Told } from '../../testing/shipped.ts';
import { outcomeTable } from '../evidence/rows.ts';
import { believe, proofOf } from '../index.ts';
import type { MissingStep } from './verdict.ts';

const cases = referenceCases();
const compiled = shipped();

test('of several ways the likeliest for its minutes is named', () => {
  let compared = 0;
  for (const { set, entries } of cases)
    for (let after = 1; after <= entries.length; after += 1) {
      const belief = believe(
        caseOf(
          [],
          entries.slice(0, after).map(({ body }): Told => body),
          set,
        ),
        compiled,
      );
      for (const id of belief.assemblies.keys()) {
        const proof = proofOf(belief, id, compiled);
        if (!proof || proof.met || proof.missing.length === 0) continue;
        const layout = compiled.layouts.get(belief.interpretation.layoutId ?? '')!;
        /** P(as the proof needs it | this assembly). */
        const chance = ({ test: asked, of, outcomes }: MissingStep): number => {
          const { told } = outcomeTable(belief.interpretation, compiled, compiled.tests.get(asked)!, of);
          const places = outcomes.map((outcome) => compiled.outcomeIds(asked).indexOf(outcome));
          const own = belief.interpretation.hypotheses.flatMap(({ fault }, h) => (fault?.assembly === id ? [h] : []));
          const mass = own.reduce((sum, h) => sum + belief.probabilities[h]!, 0);
          return own.reduce((sum, h) => sum + belief.probabilities[h]! * places.reduce((p, place) => p + told[place]![h]!, 0), 0) / mass;
        };
        const rate = (steps: readonly MissingStep[]): number =>
          steps.reduce((sum, step) => sum + compiled.tests.get(step.test)!.minutes, 0) /
          steps.reduce((product, step) => product * Math.max(0.001, chance(step)), 1);
        const named = rate(proof.missing);
        // Any other way whose steps are all open, as far as they are named here.
        for (const way of layout.proof[id]?.anyOf ?? []) {
          const items = way.flatMap((item) => ('test' in item ? [item] : []));
          const open = items.filter(
            ({ test: asked, of }) => !belief.interpretation.answered.has(of === undefined ? asked : `${asked}:${of}`),
          );
          if (items.length !== way.length || open.length !== items.length || open.length === 0) continue;
          if (open.some(({ test: asked }) => belief.interpretation.follow.has(asked) || !inReach(asked, layout.id, belief))) continue;
          expect(named).toBeLessThanOrEqual(
            rate(open.map(({ test: asked, of, outcomes }) => ({ test: asked, ...(of === undefined ? {} : { of }), outcomes }))) * 1.0001,
          );
          compared += 1;
        }
      }
    }
  expect(compared).toBeGreaterThan(20);
});

function inReach(id: string, layoutId: string, { interpretation }: ReturnType<typeof believe>): boolean {
  const found = compiled.tests.get(id)!;
  const told = (needs: { symptoms?: readonly string[] | undefined } | undefined): boolean =>
    needs?.symptoms === undefined || needs.symptoms.some((one) => interpretation.symptoms.has(one));
  return (
    compiled.fits(found, layoutId) &&
    (found.scope.symptoms === undefined || found.scope.symptoms.some((one) => interpretation.symptoms.has(one))) &&
    found.speaksOnlyIf.every(({ needs }) => told(needs) && needs.traits === undefined)
  );
}
