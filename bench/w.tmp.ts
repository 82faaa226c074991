import { readFileSync } from 'node:fs';
import { shipped, caseOf } from '../packages/core/src/testing/shipped.ts';
import { foldCase } from '../packages/core/src/index.ts';
const c = shipped();
const cases = JSON.parse(readFileSync('/work/shared/trade/told-cases.json', 'utf8')).cases;
const by: Record<string, number> = {};
for (const one of cases) {
  const l = typeof one.set.layout === 'string' ? one.set.layout : 'mixed';
  by[l] = (by[l] ?? 0) + 1; if (by[l] > 3) continue;
  console.log(`\n## ${one.id} [${l} ${one.set.family ?? ''}] ${one.story}`);
  for (let n = 1; n <= one.entries.length; n++) {
    const b = one.entries[n - 1].body;
    const f = foldCase(caseOf([], one.entries.slice(0, n).map((e: any) => e.body), one.set), c);
    const said = b.kind === 'test.answered' ? `${b.test}${b.of ? ':' + b.of : ''}=${b.outcome}` : b.kind === 'symptom.reported' ? b.symptoms.join('+') : b.kind === 'repair.done' ? `${b.repair} ${b.result}` : b.kind;
    console.log(`${n} ${said}  =>  ${f.next.slice(0, 3).map((s) => `${s.kind === 'test' ? '' : s.kind + ':'}${s.id}${s.of && s.kind === 'test' ? ':' + s.of : ''} (${s.stage} ${s.because.code})`).join(' > ')}  | ${f.assemblies.slice(0, 3).map((a) => `${a.id} ${a.odds.toFixed(2)} ${a.verdict}`).join(', ')}`);
  }
}
