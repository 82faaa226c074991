/**
 * What an instrument's result answers on the bench, written down before the rule. Common practice, no source: a result answers a step only
 * where it says the same as that step's own answer would; everything else is kept as a record and moves nothing.
 */
export interface AnswerCase {
  readonly name: string;
  readonly instrument: string;
  readonly typed: Readonly<Record<string, string>>;
  /** Test and answer; undefined: nothing is answered. */
  readonly answers: readonly [test: string, outcome: string] | undefined;
}

export const answerCases: readonly AnswerCase[] = [
  {
    name: 'short gone with the capacitor off: the capacitor was it',
    instrument: 'short',
    typed: { capacitors: '6', along: '1 0.4; 4 0.1; 6 0.3', takenOff: 'gone' },
    answers: ['bias.walk', 'short-gone'],
  },
  {
    name: 'short still there with one capacitor off: a neighbour may be it, nothing is answered',
    instrument: 'short',
    typed: { capacitors: '6', along: '1 0.4; 4 0.1; 6 0.3', takenOff: 'stays' },
    answers: undefined,
  },
  {
    name: 'short still there with none left on the rail: not a capacitor',
    instrument: 'short',
    typed: { capacitors: '6', along: '1 0.4; 4 0.1; 6 0.3', takenOff: 'none-left' },
    answers: ['bias.walk', 'short-stays'],
  },
  {
    name: 'in the middle of the walk nothing is answered',
    instrument: 'short',
    typed: { capacitors: '6', along: '1 0.4' },
    answers: undefined,
  },
  {
    name: 'all four bias supplies there',
    instrument: 'bias',
    typed: { vgh: 'there', vgl: 'there', avdd: 'there', vcom: 'there' },
    answers: ['bias.rails', 'all-present'],
  },
  {
    name: 'one not measured: can’t tell yet',
    instrument: 'bias',
    typed: { vgh: 'there', vgl: 'there', avdd: 'there' },
    answers: undefined,
  },
  {
    name: 'one missing',
    instrument: 'bias',
    typed: { vgh: 'there', vgl: 'missing', avdd: 'there', vcom: 'there' },
    answers: ['bias.rails', 'one-missing'],
  },
  {
    name: 'one trips: there for an instant and gone is missing with a short on it',
    instrument: 'bias',
    typed: { vgh: 'trips', vgl: 'there', avdd: 'there', vcom: 'there' },
    answers: ['bias.rails', 'one-missing'],
  },
  {
    name: 'all trip together: the supply and the chip are there, so it isn’t “all missing”',
    instrument: 'bias',
    typed: { vgh: 'trips', vgl: 'trips', avdd: 'trips', vcom: 'trips' },
    answers: undefined,
  },
  {
    name: 'none there',
    instrument: 'bias',
    typed: { vgh: 'missing', vgl: 'missing', avdd: 'missing', vcom: 'missing' },
    answers: ['bias.rails', 'all-missing'],
  },
  {
    name: 'string: nothing at the plug',
    instrument: 'string',
    typed: { strips: '6', leds: '10', reading: '0.4' },
    answers: ['led.output', 'none'],
  },
  {
    name: 'string: up to the limit',
    instrument: 'string',
    typed: { strips: '6', leds: '10', reading: '239', limitVolts: '240' },
    answers: ['led.output', 'limit-then-off'],
  },
  {
    name: 'string: a sixth of the LEDs shorted',
    instrument: 'string',
    typed: { strips: '6', leds: '10', reading: '150' },
    answers: ['led.output', 'far-low'],
  },
  {
    name: 'string: one LED’s worth low of sixty: within what the pack calls steady, left to the eye',
    instrument: 'string',
    typed: { strips: '6', leds: '10', reading: '176', spreadPercent: '1' },
    answers: undefined,
  },
  {
    name: 'string: as it belongs',
    instrument: 'string',
    typed: { strips: '6', leds: '10', reading: '180' },
    answers: ['led.output', 'steady'],
  },
  {
    name: 'masking: started with the culprit covered',
    instrument: 'mask',
    typed: { lines: '2', trials: '1 looped; 2 started' },
    answers: ['clock.tape', 'washed-start'],
  },
  { name: 'a bar one driver wide', instrument: 'bar', typed: { drivers: '6', barPercent: '16.5' }, answers: ['bar.width', 'one-film'] },
  {
    name: 'a bar that is no driver wide says nothing by itself',
    instrument: 'bar',
    typed: { drivers: '6', barPercent: '30' },
    answers: undefined,
  },
  {
    name: 'arithmetic alone answers nothing',
    instrument: 'discharge',
    typed: { farads: '150u', volts: '400', ohms: '2k2' },
    answers: undefined,
  },
];
