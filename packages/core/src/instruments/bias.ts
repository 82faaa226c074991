/** The supplies that a T-con makes for the panel: which are there, and what that leaves. */
import { waitsFor, type Finding, type Instrument } from './instrument.ts';

const rails = ['vgh', 'vgl', 'avdd', 'vcom'] as const;
const seen = ['unmeasured', 'there', 'missing', 'trips'] as const;

export const bias: Instrument = {
  id: 'bias',
  measures: true,
  fields: rails.map((id) => ({ id, kind: 'choice', unit: '', usual: 'unmeasured', choices: seen })),
  run({ text }) {
    const found = rails.map((id) => ({ id, is: text(id) })).filter(({ is }) => is !== 'unmeasured');
    if (found.length === 0) return waitsFor([...rails]);
    const only = (is: string): string[] => found.filter((one) => one.is === is).map(({ id }) => id.toUpperCase());
    const [there, missing, trips] = [only('there'), only('missing'), only('trips')];
    const is = (id: (typeof rails)[number]): string => text(id);
    const finding = (): Finding => {
      // One that trips takes others down with it: it comes before all that are missing.
      if (trips.length === rails.length) return { code: 'bias-all-trip', tone: 'bad', values: {} };
      if (trips.length > 0) return { code: 'bias-trips', tone: 'bad', values: { rails: trips.join(', ') } };
      if (found.length < 2) return { code: 'bias-measure-more', tone: 'doubt', values: {} };
      if (missing.length === 0)
        return { code: found.length === rails.length ? 'bias-all-there' : 'bias-measure-more', tone: 'doubt', values: {} };
      if (missing.length === rails.length) return { code: 'bias-none', tone: 'bad', values: {} };
      // Gate supplies are pumped from the column supply, and the common level is divided from it.
      if (is('avdd') === 'missing' && missing.length > 1)
        return { code: 'bias-column-first', tone: 'bad', values: { rails: missing.join(', ') } };
      if (missing.length === 1 && is('vcom') === 'missing') return { code: 'bias-common-alone', tone: 'bad', values: {} };
      return { code: missing.length === 1 ? 'bias-one-missing' : 'bias-some-missing', tone: 'bad', values: { rails: missing.join(', ') } };
    };
    return { figures: [{ id: 'railsThere', value: there.length, unit: '' }], findings: [finding()], needs: [] };
  },
};
