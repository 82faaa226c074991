/** `veglia rails`: readings of one state of the set, judged as the rail sheet in the app does. */
import {
  behaviours,
  InputRefused,
  judgeRow,
  noWayThroughOhms,
  parseReading,
  sheetRows,
  type Behaviour,
  type CompiledPack,
  type Problem,
  type SheetState,
} from '@veglia/core';
import { familyNamed } from './blink.ts';

/** Options of `veglia rails`. */
export interface RailsOptions {
  readonly layout: string;
  readonly family?: string;
  readonly state: SheetState;
  /** "POINT=VOLTS", as printed on the board. */
  readonly printed?: readonly string[];
}

const refuse = (where: string, value: string, expected: string): Problem => ({ code: 'schema', where, value, expected });
/** "POINT=READING", or undefined. */
function pair(text: string): { readonly point: string; readonly read: string } | undefined {
  const found = /^([a-z0-9.-]+)=(.+)$/.exec(text);
  return found?.[1] && found[2] ? { point: found[1], read: found[2] } : undefined;
}

/**
 * Every point that is read in that state, and what the readings given ("POINT=VALUE" or "POINT=VALUE,pulsing"; values as a bench types them) are
 * called. Throws InputRefused, naming each that can't be read and each point that isn't on the sheet.
 */
export function rails(readings: readonly string[], options: RailsOptions, compiled: CompiledPack): object {
  const layout = compiled.currentId(options.layout);
  if (!compiled.layouts.has(layout))
    throw new InputRefused([{ code: 'unknown-id', where: '--layout', value: options.layout, expected: 'layout' }]);
  const family = options.family === undefined ? undefined : familyNamed(compiled, options.family);
  const rows = sheetRows(compiled, layout, options.state);
  const problems: Problem[] = [];
  const printed = new Map<string, number>();
  for (const text of options.printed ?? []) {
    const given = pair(text);
    const read = given && parseReading(given.read);
    if (given && read && read.unit !== 'ohms') printed.set(given.point, read.value);
    else problems.push(refuse('--printed', text, 'POINT=VOLTS'));
  }
  const taken = new Map<string, { value: number; behaves: Behaviour }>();
  for (const text of readings) {
    const given = pair(text);
    const [number = '', how = 'steady'] = (given?.read ?? '').split(/,(?=[a-z])/);
    const row = rows.find(({ point }) => point === given?.point);
    const read = parseReading(number);
    if (!given) problems.push(refuse('reading', text, 'POINT=VALUE'));
    else if (!row) problems.push(refuse('reading', text, `one of ${rows.map(({ point }) => point).join(', ')}`));
    else if (!read || (read.unit !== undefined && read.unit !== row.quantity) || Math.abs(read.value) > noWayThroughOhms)
      problems.push(refuse('reading', text, row.quantity));
    else if (!behaviours.some((one) => one === how)) problems.push(refuse('reading', text, behaviours.join(', ')));
    else taken.set(row.point, { value: read.value, behaves: how as Behaviour });
  }
  if (problems.length > 0) throw new InputRefused(problems);
  return {
    layout,
    family: family?.id ?? null,
    state: options.state,
    points: rows.map((row) => {
      const reading = taken.get(row.point);
      const judged =
        reading && judgeRow(row, reading.value, reading.behaves, compiled, layout, { family, printed: printed.get(row.point) });
      return {
        point: row.point,
        on: row.on,
        quantity: row.quantity,
        test: row.answers ? row.test : null,
        ...(reading && judged
          ? {
              value: reading.value,
              behaves: reading.behaves,
              level: judged.level,
              expected: judged.expected,
              deviationPercent: judged.deviationPercent === undefined ? null : Math.round(judged.deviationPercent * 10) / 10,
              outcome: judged.outcome ?? null,
            }
          : {}),
      };
    }),
  };
}
