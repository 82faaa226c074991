/** Where a memory is reached: the pins of its package, or the points on the board. */
import type { FlashDid } from '../ledger/index.ts';

/** One contact; `wants`: what it needs while the chip is read by itself, with nothing else on the line. */
export interface ChipPin {
  readonly name: string;
  readonly does:
    'select' | 'data-out' | 'data-in' | 'clock' | 'ground' | 'supply' | 'protect' | 'hold' | 'address' | 'data' | 'command' | 'io-supply';
  readonly wants?: 'high' | 'low';
}

/**
 * Pins 1 to 8 of the 8-pin package, counted from the mark against the clock seen from above, as the data sheets of 25-series flash memories and 24-series
 * EEPROMs have them (values from memory). An eMMC in place has no pins to count: its points are named.
 */
const pins: Readonly<Record<Extract<FlashDid, { step: 'opened' }>['memory'], readonly ChipPin[]>> = {
  'spi-nor': [
    { name: 'CS#', does: 'select' },
    { name: 'DO', does: 'data-out' },
    { name: 'WP#', does: 'protect', wants: 'high' },
    { name: 'GND', does: 'ground' },
    { name: 'DI', does: 'data-in' },
    { name: 'CLK', does: 'clock' },
    { name: 'HOLD#', does: 'hold', wants: 'high' },
    { name: 'VCC', does: 'supply' },
  ],
  eeprom: [
    { name: 'A0', does: 'address' },
    { name: 'A1', does: 'address' },
    { name: 'A2', does: 'address' },
    { name: 'GND', does: 'ground' },
    { name: 'SDA', does: 'data' },
    { name: 'SCL', does: 'clock' },
    { name: 'WP', does: 'protect', wants: 'low' },
    { name: 'VCC', does: 'supply' },
  ],
  emmc: [
    { name: 'CMD', does: 'command' },
    { name: 'CLK', does: 'clock' },
    { name: 'DAT0', does: 'data' },
    { name: 'GND', does: 'ground' },
    { name: 'VCC', does: 'supply' },
    { name: 'VCCQ', does: 'io-supply' },
  ],
};

/** Contacts of a memory, in order of their numbers where it has any. */
export const contactsOf = (memory: keyof typeof pins): { readonly numbered: boolean; readonly contacts: readonly ChipPin[] } => ({
  numbered: memory !== 'emmc',
  contacts: pins[memory],
});
