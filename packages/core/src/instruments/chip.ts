/** Work on a chip: what can't be made good afterwards is asked for before any heat; it goes on as it stood; a reflow is a long shot and is done once. */
import { emptyOf, waitsFor, type Field, type Finding, type Instrument } from './instrument.ts';

/** Below this a supply pin is shorted to ground, Ω (common practice, no source: even a large chip's core reads more). */
const supplyShort = 1;
/** Less than this share of what the old chip read points to a bridge or a wrong chip (value of ours). */
const farLess = 0.25;
/** Solder under a chip is soft for so long after the heat, minutes (common practice, no source). */
const coolMinutes = 2;

const corners = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
const choice = (id: string, choices: readonly string[]): Field => ({ id, kind: 'choice', unit: '', usual: choices[0] ?? '', choices });
const chip: Field = { id: 'chip', kind: 'text', unit: '' };
const corner = (id: string, ...more: readonly string[]): Field => choice(id, ['unread', ...corners, ...more]);
const tick = (id: string): Field => choice(id, ['no', 'yes']);
const farSide = choice('farSide', ['unlooked', 'none', 'off', 'left']);

/** As the ledger takes the name of a part. Throws RangeError, naming it. */
function checkName(name: string): void {
  if (!/^[\p{L}\p{N} ._/+-]{1,60}$/u.test(name)) throw new RangeError(name);
}
/** What has to be seen to before hot air reaches the board. */
function beforeAir(text: (id: string) => string): Finding[] {
  const found: Finding[] = [];
  if (text('farSide') === 'unlooked') found.push({ code: 'chip-far-first', tone: 'doubt', values: {} });
  if (text('farSide') === 'left') found.push({ code: 'chip-plastic', tone: 'bad', values: {} });
  if (text('shielded') === 'no') found.push({ code: 'chip-shield-first', tone: 'doubt', values: {} });
  return found;
}

export const chipOff: Instrument = {
  id: 'chip-off',
  asksDown: true,
  fields: [
    chip,
    corner('pin1Chip', 'unmarked'),
    corner('pin1Board', 'unmarked'),
    tick('photo'),
    choice('heat', ['below', 'top', 'iron']),
    farSide,
    tick('shielded'),
    choice('pads', ['unlooked', 'whole', 'lifted']),
  ],
  run(values) {
    const { text } = values;
    if (text('chip') === '') return waitsFor(emptyOf(values, 'chip'));
    checkName(text('chip'));
    const say = (code: string, tone: Finding['tone']): Finding => ({ code, tone, values: { chip: text('chip') } });
    if (text('pads') === 'whole') return { figures: [], findings: [say('chip-off-done', 'good')], needs: [] };
    if (text('pads') === 'lifted') return { figures: [], findings: [say('chip-pads-lifted', 'bad')], needs: [] };
    const [own, board] = [text('pin1Chip'), text('pin1Board')];
    const first: Finding[] = [];
    const told: Finding[] = [];
    if (own === 'unread' || board === 'unread') first.push(say('chip-pin1-first', 'doubt'));
    else if (own === 'unmarked' && board === 'unmarked') first.push(say('chip-unmarked', 'bad'));
    else if (board === 'unmarked') told.push(say('chip-draw-mark', 'doubt'));
    else if (own !== 'unmarked' && own !== board) told.push(say('chip-marks-differ', 'doubt'));
    if (text('photo') === 'no') first.push(say('chip-photo-first', 'doubt'));
    if (text('heat') !== 'iron') first.push(...beforeAir(text));
    if (text('heat') === 'top') told.push(say('chip-top-air', 'doubt'));
    return { figures: [], findings: [...told, ...(first.length > 0 ? first : [say('chip-off-may', 'good')])], needs: [] };
  },
};

export const chipOn: Instrument = {
  id: 'chip-on',
  asksDown: true,
  startsFrom: { instrument: 'chip-off', fields: { chip: 'chip', pin1Was: 'pin1Chip' } },
  fields: [
    chip,
    corner('pin1Was'),
    corner('pin1New'),
    tick('padsClean'),
    choice('bridges', ['unlooked', 'none', 'some']),
    { id: 'supplyOhmsBefore', kind: 'quantity', unit: 'Ω', optional: true, least: 0, most: 1e8 },
    { id: 'supplyOhms', kind: 'quantity', unit: 'Ω', optional: true, least: 0, most: 1e8 },
    tick('cleaned'),
  ],
  run(values) {
    const { text, number } = values;
    if (text('chip') === '') return waitsFor(emptyOf(values, 'chip'));
    checkName(text('chip'));
    const needs = ['pin1Was', 'pin1New'].filter((id) => text(id) === 'unread');
    if (needs.length > 0) return waitsFor(needs);
    const say = (code: string, tone: Finding['tone']): Finding => ({ code, tone, values: { chip: text('chip') } });
    const only = (code: string) => ({ figures: [], findings: [say(code, 'bad')], needs: [] });
    if (text('pin1New') !== text('pin1Was')) return only('chip-turned');
    if (text('bridges') === 'some') return only('chip-bridge');
    const [ohms, before] = [number('supplyOhms'), number('supplyOhmsBefore')];
    if (ohms !== undefined && ohms < supplyShort) return only('chip-supply-short');
    if (ohms !== undefined && before !== undefined && ohms < before * farLess) return only('chip-supply-less');
    const left: Finding[] = [];
    if (text('bridges') === 'unlooked') left.push(say('chip-look', 'doubt'));
    if (ohms === undefined) left.push(say('chip-ohms', 'doubt'));
    if (text('cleaned') === 'no') left.push(say('chip-flux', 'doubt'));
    return { figures: [], findings: left.length > 0 ? left : [say('chip-on-done', 'good')], needs: [] };
  },
};

export const reflow: Instrument = {
  id: 'reflow',
  asksDown: true,
  fields: [
    chip,
    { id: 'times', kind: 'quantity', unit: '', usual: '0', whole: true, least: 0, most: 20 },
    tick('told'),
    tick('preheat'),
    farSide,
    tick('shielded'),
    tick('flux'),
    { id: 'coolMinutes', kind: 'quantity', unit: '', optional: true, least: 0, most: 240 },
    choice('result', ['not-yet', 'starts', 'unchanged']),
  ],
  run(values) {
    const { text, number } = values;
    if (text('chip') === '') return waitsFor(emptyOf(values, 'chip'));
    checkName(text('chip'));
    const say = (code: string, tone: Finding['tone']): Finding => ({ code, tone, values: { chip: text('chip') } });
    if ((number('times') ?? 0) > 0) return { figures: [], findings: [say('reflow-again', 'bad')], needs: [] };
    const findings = [say('reflow-long-shot', 'doubt')];
    if (text('result') !== 'not-yet') {
      const cool = number('coolMinutes');
      if (cool === undefined || cool < coolMinutes) findings.push(say('reflow-cool', 'doubt'));
      findings.push(text('result') === 'starts' ? say('reflow-on-trial', 'doubt') : say('reflow-no', 'bad'));
      return { figures: [], findings, needs: [] };
    }
    const first: Finding[] = [];
    if (text('told') === 'no') first.push(say('reflow-told', 'doubt'));
    if (text('preheat') === 'no') first.push(say('reflow-preheat', 'doubt'));
    first.push(...beforeAir(text));
    if (text('flux') === 'no') first.push(say('reflow-flux', 'doubt'));
    return { figures: [], findings: [...findings, ...(first.length > 0 ? first : [say('reflow-may', 'good')])], needs: [] };
  },
};
