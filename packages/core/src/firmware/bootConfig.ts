/** Where an eMMC boots from: three bytes of its extended registers (JEDEC JESD84-B51; values from memory). */
import type { FlashDid } from '../ledger/index.ts';

/** As read: PARTITION_CONFIG (byte 179), BOOT_BUS_CONDITIONS (177) and RST_n_FUNCTION (162), each two hexadecimal digits. */
export type BootConfig = Pick<Extract<FlashDid, { step: 'boot-config' }>, 'partition' | 'bus' | 'reset'>;
/** What they say. `acknowledges`: it answers before it sends its boot data. */
export interface BootConfigSays {
  readonly boots: 'none' | 'boot-1' | 'boot-2' | 'user' | 'reserved';
  readonly acknowledges: boolean;
  /** Its reset contact; written once for good. */
  readonly reset: 'not-set' | 'on' | 'off' | 'reserved';
}
const from = { 0: 'none', 1: 'boot-1', 2: 'boot-2', 7: 'user' } as const;
const resets = ['not-set', 'on', 'off'] as const;

export function readBootConfig({ partition, reset }: BootConfig): BootConfigSays {
  const [config, resetting] = [Number.parseInt(partition, 16), Number.parseInt(reset, 16)];
  const enabled = (config >> 3) & 7;
  return {
    boots: enabled in from ? from[enabled as keyof typeof from] : 'reserved',
    acknowledges: (config & 0x40) !== 0,
    reset: resets[resetting & 3] ?? 'reserved',
  };
}

/** What has to be alike on a chip that takes another’s place: which area was last accessed is none of it. */
export const sameBoot = (a: BootConfig, b: BootConfig): boolean =>
  (Number.parseInt(a.partition, 16) & 0x78) === (Number.parseInt(b.partition, 16) & 0x78) && a.bus === b.bus && a.reset === b.reset;
