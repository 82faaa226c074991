/** What is on the bench around the set at one moment: what is out, bridged, taped, warm, and what feeds it. */
export interface BenchState {
  readonly out: Set<string>;
  readonly bridged: [string, string][];
  readonly taped: Set<string>;
  readonly lifted: Set<string>;
  readonly cleaned: Set<string>;
  /** Node -> what was put in its place. */
  readonly fitted: Map<string, 'known-good' | 'jig' | 'universal'>;
  /** °C of the room, of nodes, and of single chips. */
  readonly warmth: Map<string, number>;
  readonly supply: Set<string>;
  /** Point -> amperes loaded on purpose. */
  readonly loads: Map<string, number>;
  plugged: boolean;
  /** Asked to start. */
  on: boolean;
  /** Minutes it was left trying, and starts in a row. */
  patience: number;
  presses: number;
  /** Latched states cleared: a press of the own button while unplugged, and minutes since. */
  drained: boolean;
  unpluggedMinutes: number;
  /** What was pressed last, power and remote apart. */
  pressed: string | undefined;
  updated: boolean;
  reset: boolean;
  tapped: Set<string>;
  squeezed: boolean;
}

/** Temperature of the room, °C. */
export const room = 23;

/** A set as it comes, with nothing done to it. */
export const emptyBench = (): BenchState => ({
  out: new Set(),
  bridged: [],
  taped: new Set(),
  lifted: new Set(),
  cleaned: new Set(),
  fitted: new Map(),
  warmth: new Map(),
  supply: new Set(),
  loads: new Map(),
  plugged: false,
  on: false,
  patience: 0,
  presses: 0,
  drained: false,
  unpluggedMinutes: 0,
  pressed: undefined,
  updated: false,
  reset: false,
  tapped: new Set(),
  squeezed: false,
});

/** °C of a node or chip: its own, its board's, else the whole set's. */
export function warmthOf(bench: BenchState, ...places: readonly string[]): number {
  for (const place of places) {
    const own = bench.warmth.get(place);
    if (own !== undefined) return own;
  }
  return bench.warmth.get('set') ?? room;
}
