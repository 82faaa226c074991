/** What a set is built as, and what it shows and does in one configuration. */
import type { Family, Layout } from '@veglia/core/knowledge';

/** How a set is built. */
export interface Build {
  readonly layout: Layout;
  readonly family: Family | undefined;
}

/** What the backlight does. */
export type Light = 'on' | 'off' | 'flash' | 'dim';
/** What is on the screen. */
export type Picture =
  | 'good'
  | 'none'
  | 'faint'
  | 'left-missing'
  | 'right-missing'
  | 'bar'
  | 'line'
  | 'lines'
  | 'turned'
  | 'dots'
  | 'tint'
  | 'washed'
  | 'frozen'
  | 'band'
  | 'partial';

/** A voltage as a share of nominal: before the key, after it has settled, and its highest instant. */
export interface Volts {
  readonly idle: number;
  readonly value: number;
  readonly peak: number;
  readonly steady: boolean;
}

/** What a set notices of itself. */
export type Notice = 'rail' | 'light' | 'main' | 'panel' | 'sound' | 'memory' | 'sustain' | 'address' | 'fan' | 'panel-supply';

/** A set at one moment. */
export interface Scene {
  readonly mains: boolean;
  readonly awake: boolean;
  readonly indicator: 'off' | 'steady' | 'blinking';
  /** What the set noticed, where its family has a code for it. */
  readonly notice: Notice | undefined;
  readonly clicks: boolean;
  /** Answers its key, answers its remote. */
  readonly reacts: { readonly key: boolean; readonly remote: boolean };
  readonly starts: boolean;
  /** Goes on running. */
  readonly alive: boolean;
  readonly late: boolean;
  readonly restarts: boolean;
  readonly log: 'runs' | 'stops' | 'silent';
  readonly light: Light;
  readonly sound: boolean;
  /** The same at the headphone socket. */
  readonly headphones: boolean;
  readonly picture: Picture;
  readonly input: 'works' | 'dead';
  readonly network: 'works' | 'dead';
  readonly frozen: boolean;
  readonly fan: 'spins' | 'silent' | 'noisy';
  readonly processor: 'cold' | 'warm' | 'hot';
  readonly logicLamp: boolean;
  /** Runs hotter than it should. */
  readonly hot: boolean;
  readonly volts: Readonly<Record<string, Volts>>;
  /** Of a kind of rail at one point: which are missing. */
  readonly missing: Readonly<Record<string, 'none' | 'one' | 'all'>>;
}
