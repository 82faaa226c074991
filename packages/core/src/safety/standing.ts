/**
 * What may be relied on about a set right now.
 *
 * Power is three facts: unplugged, rails down, verified. "Rails down" and "verified" hold only where somebody looked or measured and
 * recorded it, and lapse at every power-up, after a time, and when another's entry arrives that didn't know of them.
 */
import { safeVolts } from '../electrical/index.ts';
import type { Established, SetState } from '../ledger/index.ts';

/** The set as it may be relied on now. */
export interface SetStanding extends SetState {
  /** Whole minutes since it was looked at or measured; undefined where it doesn't hold. */
  readonly downFor: number | undefined;
  readonly verifiedFor: number | undefined;
  /** It was established, and has lapsed by its age alone. */
  readonly lapsed: boolean;
}

/** How long a look or a measurement is relied on where a shop hasn't said, minutes: value of ours. */
export const usualLapseMinutes = 30;

/** `now` in milliseconds since 1970; `lapseMinutes` is the shop's setting. */
export function standingAt(state: SetState, now: number, lapseMinutes = usualLapseMinutes): SetStanding {
  const age = (known: Established | undefined): number | undefined =>
    known === undefined || state.plugged ? undefined : Math.max(0, (now - Date.parse(known.at)) / 60_000);
  const fresh = (minutes: number | undefined): number | undefined =>
    minutes !== undefined && minutes <= lapseMinutes ? Math.floor(minutes) : undefined;
  const readLow = Object.values(state.measured?.volts ?? {}).every((volts) => Math.abs(volts) < safeVolts);
  const down = age(state.lookedDown);
  const measured = readLow ? age(state.measured) : undefined;
  return {
    ...state,
    railsDown: fresh(down) !== undefined,
    verified: fresh(measured) !== undefined,
    downFor: fresh(down),
    verifiedFor: fresh(measured),
    lapsed: (down !== undefined && fresh(down) === undefined) || (measured !== undefined && fresh(measured) === undefined),
  };
}
