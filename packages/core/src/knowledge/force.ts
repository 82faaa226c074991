/** How a control line is driven from outside: from where, and through what. */
import { forcingOhms } from '../electrical/index.ts';
import type { Family, Layout } from './schema.ts';

/** At which level a line asks for what it commands. */
export type ActiveLevel = 'high' | 'low' | 'unknown';

/** The level at which a line asks for what it commands, as the family states it (`<line>.active-low`). */
export function activeLevel(line: string, family: Family | undefined): ActiveLevel {
  const low = family?.traits[`${line}.active-low`];
  return low === undefined ? 'unknown' : low === 'yes' ? 'low' : 'high';
}

/** Of sets whose polarity nobody wrote down, the share in which a command line is active low (value of ours; 3.3 V asks in most). */
export const activeLowShare = 0.04;

/** Whether a line that reads this share of its usual volts is at the level that asks; where the polarity isn't known, as in most sets. */
export function asksAt(share: number, from: number, level: ActiveLevel): boolean {
  return level === 'low' ? share <= 1 - from : share >= from;
}

/** Where a line is pulled to: the standby rail, or the chassis for one that is active low. */
const standbyRail = 'standby';
/** The set’s metal, which all its supplies are measured to. */
export const chassis = 'chassis';
/** A source of 3.3 V of the bench's own, its other pole on the chassis. */
const benchSource = 'source-3v3';
const benchSourceVolts = 3.3;

/**
 * A logic input of the 5 V class stands this, volts (value of ours: 5 V and a tenth). What a line's input stands above it isn't known unless
 * the family says that it takes the standby rail (`<line>.takes-standby`).
 */
export const inputStandsVolts = 5.5;

/** How a line is driven from outside. */
export interface Forcing {
  readonly line: string;
  /**
   * `standby`, or `chassis` for a line that is active low, or a 3.3 V source where the standby rail is more than the input is known to stand;
   * while polarity or rail aren't known, what holds for most sets.
   */
  readonly from: string;
  readonly ohms: number;
  readonly level: ActiveLevel;
  /** Present where the standby rail is not the family's: what to do instead where it reads above `inputStandsVolts`. */
  readonly above?: { readonly from: string; readonly ohms: number };
}

/** The rail's volts are the family's, else what is usual in the layout; the resistor holds the line's input to about 3 mA. */
export function forcingOf(line: string, layout: Layout, family: Family | undefined): Forcing {
  const level = activeLevel(line, family);
  const known = family?.rails.find(({ point }) => point === standbyRail)?.nominalVolts;
  const volts = known ?? layout.points[standbyRail]?.volts ?? usualStandbyVolts;
  if (level === 'low') return { line, from: chassis, ohms: forcingOhms(volts), level };
  const safe = { from: benchSource, ohms: forcingOhms(benchSourceVolts) };
  if (volts > inputStandsVolts && family?.traits[`${line}.takes-standby`] !== 'yes') return { line, ...safe, level };
  return { line, from: standbyRail, ohms: forcingOhms(volts), level, ...(known === undefined ? { above: safe } : {}) };
}

/** Standby rail of a set that states none, volts (common practice, no source). */
const usualStandbyVolts = 5;
