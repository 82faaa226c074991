/** Codes in camera pictures, off the main thread: a picture takes some tens of milliseconds. */
import { expose } from 'comlink';
import jsQR from 'jsqr';

const scanner = {
  /** What the QR code in an RGBA picture says; undefined where none is seen. */
  read: (rgba: Uint8ClampedArray, width: number, height: number): string | undefined => jsQR(rgba, width, height)?.data,
};
export type Scanner = typeof scanner;

expose(scanner);
