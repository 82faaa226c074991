/** How a control line is driven from outside: from where, and through what. */
import { forcingOhms } from '../electrical/index.ts';
import type { Family, Layout } from './schema.ts';

export type ActiveLevel = 'high' | 'low' | 'unknown';

/** The level at which a line asks for what it commands, as the family states it (`<line>.active-low`). */
export function activeLevel(line: string, family: Family | undefined): ActiveLevel {
  const low = family?.traits[`${line}.active-low`];
  return low === undefined ? 'unknown' : low === 'yes' ? 'low' : 'high';
}

/** Where a line is pulled to: the standby rail, or the chassis for one that is active low. */
const standbyRail = 'standby';
export const chassis = 'chassis';

export interface Forcing {
  readonly line: string;
  /** `standby`, or `chassis` for a line that is active low; while that isn't known, what holds for most sets. */
  readonly from: string;
  readonly ohms: number;
  readonly level: ActiveLevel;
}

/** The supply's volts are the family's, else what is usual in the layout; the resistor holds the line's input to about 3 mA. */
export function forcingOf(line: string, layout: Layout, family: Family | undefined): Forcing {
  const level = activeLevel(line, family);
  const volts = family?.rails.find(({ point }) => point === standbyRail)?.nominalVolts ?? layout.points[standbyRail]?.volts ?? usualStandbyVolts;
  return { line, from: level === 'low' ? chassis : standbyRail, ohms: forcingOhms(volts), level };
}

/** Standby rail of a set that states none, volts (common practice, no source). */
const usualStandbyVolts = 5;
