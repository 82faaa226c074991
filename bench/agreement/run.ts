/**
 * Where the pack and the simulated set disagree: symptoms by fault, and outcomes the pack holds for nearly impossible that
 * the physics gives all the same. A list to argue over, cell by cell; neither side is right by itself.
 *
 *   node --import tsx bench/agreement/run.ts [symptoms|tests] [layout]
 */
import { readPackFolder } from '@veglia/contract/node';
import { compilePack, type CompiledPack } from '@veglia/core';
import { SimulatedSet } from '@veglia/simulators';

const sets = 40;
const compiled: CompiledPack = compilePack(await readPackFolder(new URL('../../knowledge', import.meta.url).pathname));
const [what = 'complaints', only] = process.argv.slice(2);

for (const layout of compiled.pack.layouts.filter(({ id }) => only === undefined || id === only)) {
  const families = compiled.pack.families.filter((family) => family.layouts.includes(layout.id));
  for (const fault of compiled.faultsOf.get(layout.id) ?? []) {
    const complaints = new Map<string, number>();
    const seen = new Map<string, Map<string, number>>();
    let told = 0;
    for (let seed = 0; seed < sets; seed += 1) {
      const set = new SimulatedSet({ layout, family: families[seed % families.length], faults: [fault.id], seed });
      const complaint = set.complaint();
      complaints.set(complaint ?? '(none)', (complaints.get(complaint ?? '(none)') ?? 0) + 1);
      if (complaint === undefined || what !== 'tests') continue;
      told += 1;
      const { symptoms } = {
        symptoms: new Set([
          complaint,
          ...Object.entries(layout.showsAs)
            .filter(([, here]) => here === complaint)
            .map(([there]) => there),
        ]),
      };
      const family = families[seed % families.length];
      for (const test of compiled.testsOf.get(layout.id) ?? []) {
        if (test.scope.symptoms && !test.scope.symptoms.some((id) => symptoms.has(id))) continue;
        const holds = (needs: (typeof test.speaksOnlyIf)[number]['needs']): boolean =>
          (!needs.symptoms || needs.symptoms.some((id) => symptoms.has(id))) &&
          Object.entries(needs.traits ?? {}).every(([trait, values]) => values.includes(family?.traits[trait] ?? 'unknown'));
        if (test.speaksOnlyIf.some(({ needs }) => !holds(needs))) continue;
        const block = test.likelihood.find(({ when }) => when === undefined || holds(when));
        if (!block) continue;
        for (const of of test.of ? compiled.objectsOf(test, layout.id) : [undefined]) {
          const { outcome } = set.perform(test, of);
          const probability =
            compiled.outcomeLikelihoods(test, block, layout.id, fault.id, of)[compiled.outcomeIds(test.id).indexOf(outcome)] ?? 0;
          const key = `${test.id}${of === undefined ? '' : `:${of}`}=${outcome} [${complaint}] book ${probability.toFixed(3)}`;
          const counts = seen.get(key) ?? new Map<string, number>();
          counts.set('n', (counts.get('n') ?? 0) + 1);
          seen.set(key, counts);
        }
      }
    }
    const row = compiled.symptomLikelihoods(layout.id, fault.id);
    if (what === 'complaints') {
      const parts = [...complaints]
        .sort((a, b) => b[1] - a[1])
        .map(([id, n]) => `${id} ${Math.round((100 * n) / sets)}%/${Math.round(100 * (row[compiled.symptomIds.indexOf(id)] ?? 0))}%`);
      console.log(layout.id.padEnd(18), fault.id.padEnd(28), parts.join('  '));
    } else {
      for (const [key, counts] of seen) {
        const n = counts.get('n') ?? 0;
        const probability = Number(key.split('book ')[1]);
        if (probability < 0.13 && n >= 2) console.log(layout.id.padEnd(18), fault.id.padEnd(26), key, `sim ${n}/${told}`);
      }
    }
  }
}
