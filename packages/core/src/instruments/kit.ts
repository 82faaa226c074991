/** A strip kit against what is in the set: count, LEDs, length, volts, plug and lens. */
import { emptyOf, waitsFor, type Finding, type Instrument } from './instrument.ts';

/** The pins and holes of the tray forgive so much, mm (value of ours). */
const lengthSlack = 3;
/** LEDs are of one die or two: half a volt apart is the same kind (common practice, no source). */
const voltsSlack = 0.5;

const count = (id: string) => ({ id, kind: 'quantity', unit: '', whole: true, least: 1, most: 60 }) as const;
const length = (id: string) => ({ id, kind: 'quantity', unit: '', optional: true, least: 20, most: 3000 }) as const;
const volts = (id: string) => ({ id, kind: 'quantity', unit: 'V', optional: true, least: 1, most: 40 }) as const;

export const kit: Instrument = {
  id: 'kit',
  fields: [
    count('strips'),
    count('leds'),
    length('lengthMm'),
    volts('ledVolts'),
    count('kitStrips'),
    count('kitLeds'),
    length('kitLengthMm'),
    volts('kitLedVolts'),
    { id: 'plug', kind: 'choice', unit: '', usual: 'same', choices: ['same', 'other'] },
    { id: 'lens', kind: 'choice', unit: '', usual: 'yes', choices: ['yes', 'no'] },
  ],
  run(values) {
    const { number, text } = values;
    const [strips, leds, kitStrips, kitLeds] = [number('strips'), number('leds'), number('kitStrips'), number('kitLeds')];
    if (strips === undefined || leds === undefined || kitStrips === undefined || kitLeds === undefined)
      return waitsFor(emptyOf(values, 'strips', 'leds', 'kitStrips', 'kitLeds'));
    const halves = kitStrips === strips * 2 && kitLeds * 2 === leds;
    const [own, other] = [number('lengthMm'), number('kitLengthMm')];
    const differs = own !== undefined && other !== undefined && Math.abs(other * (halves ? 2 : 1) - own) > lengthSlack;
    const [ownVolts, otherVolts] = [number('ledVolts'), number('kitLedVolts')];
    const refused: Finding[] = [];
    if (!halves && (kitStrips < strips || kitLeds !== leds))
      refused.push({ code: 'kit-count', tone: 'bad', values: { strips, leds, kitStrips, kitLeds } });
    if (ownVolts !== undefined && otherVolts !== undefined && Math.abs(ownVolts - otherVolts) > voltsSlack)
      refused.push({ code: 'kit-volts', tone: 'bad', values: {} });
    if (differs) refused.push({ code: 'kit-length', tone: 'bad', values: { most: lengthSlack } });
    const doubts: Finding[] = [];
    if (text('plug') === 'other') doubts.push({ code: 'kit-plug', tone: 'doubt', values: {} });
    if (text('lens') === 'no') doubts.push({ code: 'kit-lens', tone: 'doubt', values: {} });
    if (refused.length > 0) return { figures: [], findings: [...refused, ...doubts], needs: [] };
    const fits: Finding[] = halves
      ? [{ code: 'kit-halves', tone: 'doubt', values: {} }]
      : doubts.length > 0
        ? []
        : [{ code: 'kit-fits', tone: 'good', values: {} }];
    return { figures: [], findings: [...fits, ...doubts], needs: [] };
  },
};
