/** What warms, as a report: the pictures come as files, so it has no fields of its own. */
import type { JudgedSpot, Warmth } from '../thermal/index.ts';
import type { Finding, Report } from './instrument.ts';

/** Places that are named one by one (value of ours: more are a board that is warm all over). */
const named = 5;
/** So many places at once are the board as a whole, or pictures that don't lie on each other. */
const everywhere = 10;

/** Numbers of places are those of the list of spots, from 1; x and y in percent from the top left. `judged`: by name, and against a good set. */
export function thermalReport(
  { spots, noise, moved }: Warmth,
  judged: { readonly spots: readonly JudgedSpot[]; readonly cold: readonly string[] } = { spots: [], cold: [] },
): Report {
  const percent = (share: number): number => Math.round(share * 100);
  const rounded = (value: number): number => Number(value.toPrecision(2));
  const findings = spots.slice(0, named).map(({ x, y, rise, rate, by }, index): Finding => ({
    code: index === 0 ? 'warm-first' : `warm-next-${index + 1}`,
    tone: index === 0 ? 'bad' : 'doubt',
    values: { x: percent(x), y: percent(y), rise: rounded(rise), rate: rounded(rate), by },
  }));
  const shift = Math.max(...moved.map(([right, down]) => Math.hypot(right, down)));
  return {
    figures: [
      { id: 'warmPlaces', value: spots.length, unit: '' },
      { id: 'warmNoise', value: rounded(noise), unit: '°C' },
      { id: 'cellsMoved', value: Math.round(shift), unit: '' },
    ],
    findings: [
      ...(spots.length === 0 ? [{ code: 'warm-none', tone: 'good', values: { noise: rounded(noise) } } satisfies Finding] : []),
      ...findings,
      ...against('warm-warmer', 'bad', 'warmer'),
      ...against('warm-cooler', 'doubt', 'cooler'),
      ...against('warm-as-good', 'good', 'as-good'),
      ...against('warm-named', 'doubt', 'unknown'),
      ...(judged.cold.length === 0 ? [] : [{ code: 'warm-cold', tone: 'bad', values: { list: judged.cold.join(', ') } } satisfies Finding]),
      ...(spots.length >= everywhere ? [{ code: 'warm-everywhere', tone: 'doubt', values: {} } satisfies Finding] : []),
    ],
    needs: [],
  };
  function against(code: string, tone: Finding['tone'], wanted: JudgedSpot['against']): Finding[] {
    const list = judged.spots.flatMap(({ name, good, against: how }, index) =>
      how === wanted && name !== undefined ? [`${index + 1} ${name}${good === undefined ? '' : ` (${good} °C)`}`] : [],
    );
    return list.length === 0 ? [] : [{ code, tone, values: { list: list.join(', ') } }];
  }
}
