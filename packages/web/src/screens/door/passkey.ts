/** The browser's passkeys (W3C Web Authentication), loaded where somebody uses one. Undefined where it was broken off, or where the browser has none. */
import type { PasskeyMade, PasskeyOptions, PasskeyUsed } from '@veglia/contract';

const browser = () => import('@simplewebauthn/browser');

/** Cancelled, timed out, made already: all the same to whoever asks, and said by the browser itself. */
const isBrokenOff = (error: unknown): boolean =>
  error instanceof Error && /^(?:NotAllowed|Abort|InvalidState|Security|WebAuthn)/.test(error.name);

async function unlessBrokenOff<T>(work: () => Promise<T>): Promise<T | undefined> {
  try {
    return await work();
  } catch (error) {
    if (isBrokenOff(error)) return undefined;
    throw error;
  }
}

export async function signWithPasskey(options: PasskeyOptions): Promise<PasskeyUsed | undefined> {
  const { startAuthentication } = await browser();
  return unlessBrokenOff(
    async () =>
      (await startAuthentication({
        optionsJSON: options as unknown as Parameters<typeof startAuthentication>[0]['optionsJSON'],
      })) as PasskeyUsed,
  );
}

export async function makePasskey(options: PasskeyOptions): Promise<PasskeyMade | undefined> {
  const { startRegistration } = await browser();
  return unlessBrokenOff(
    async () =>
      (await startRegistration({
        optionsJSON: options as unknown as Parameters<typeof startRegistration>[0]['optionsJSON'],
      })) as PasskeyMade,
  );
}
