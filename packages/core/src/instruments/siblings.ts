/** Parts that should read alike: which is odd, and how sure that is. */
import { fewestSiblings, mostSiblings, oddOneOut, type Unit } from '../electrical/index.ts';
import { waitsFor, type Instrument, type Report } from './instrument.ts';

const unitOf: Readonly<Record<string, Unit>> = { ohms: 'Ω', volts: 'V', celsius: '°C' };

/** One for each quantity: the unit belongs to the field. */
const siblingsOf = (quantity: 'ohms' | 'volts' | 'celsius'): Instrument => ({
  id: quantity === 'ohms' ? 'siblings' : `siblings-${quantity}`,
  ...(quantity === 'ohms' ? { measures: true as const } : {}),
  fields: [{ id: 'values', kind: 'list', unit: unitOf[quantity] ?? '', ...(quantity === 'ohms' ? { least: 0 } : {}), most: 1e12 }],
  run({ list }): Report {
    const values = list('values');
    if (values.length === 0) return waitsFor(['values']);
    if (values.length < fewestSiblings)
      return { figures: [], findings: [{ code: 'siblings-too-few', tone: 'doubt', values: { n: values.length } }], needs: [] };
    if (values.length > mostSiblings)
      return { figures: [], findings: [{ code: 'siblings-too-many', tone: 'doubt', values: { most: mostSiblings } }], needs: [] };
    const found = oddOneOut(values, quantity);
    if (found.verdict !== 'odd' || found.which === undefined) {
      return {
        figures: [{ id: 'alike', value: found.alike * 100, unit: '%' }],
        findings: [{ code: `siblings-${found.verdict}`, tone: found.verdict === 'alike' ? 'good' : 'doubt', values: {} }],
        needs: [],
      };
    }
    return {
      figures: [
        { id: 'odd', value: found.which + 1, unit: '' },
        { id: 'sure', value: (found.odd[found.which] ?? 0) * 100, unit: '%' },
      ],
      // It names a branch, not a part: a chip behind a good capacitor reads as odd as a bad one.
      findings: [{ code: 'siblings-odd', tone: 'bad', values: { which: found.which + 1, n: values.length } }],
      needs: [],
    };
  },
});

export const siblings = siblingsOf('ohms');
export const siblingVolts = siblingsOf('volts');
export const siblingCelsius = siblingsOf('celsius');
