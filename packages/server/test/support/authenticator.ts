/**
 * A passkey's half, from the standards themselves and nothing of the server's: W3C Web Authentication, level 2, section 6.1 (authenticator data) and 6.3 (none
 * attestation), COSE keys of RFC 9053 section 7.1.1 (ES256 on P-256), CBOR of RFC 8949; from memory.
 */
import { createHash, generateKeyPairSync, randomBytes, sign } from 'node:crypto';
import type { PasskeyMade, PasskeyUsed } from '@veglia/contract';

const head = (major: number, n: number): Buffer =>
  n < 24
    ? Buffer.from([(major << 5) | n])
    : n < 256
      ? Buffer.from([(major << 5) | 24, n])
      : Buffer.from([(major << 5) | 25, n >> 8, n & 255]);
type Item = number | string | Buffer | Map<number | string, Item>;
function cbor(item: Item): Buffer {
  if (typeof item === 'number') return item >= 0 ? head(0, item) : head(1, -1 - item);
  if (typeof item === 'string') return Buffer.concat([head(3, Buffer.byteLength(item)), Buffer.from(item)]);
  if (Buffer.isBuffer(item)) return Buffer.concat([head(2, item.length), item]);
  return Buffer.concat([head(5, item.size), ...[...item].flatMap(([key, value]) => [cbor(key), cbor(value)])]);
}
const sha256 = (data: string | Buffer): Buffer => createHash('sha256').update(data).digest();

interface Asked {
  readonly challenge: string;
  readonly origin: string;
  readonly rp: string;
}

export class Authenticator {
  readonly id = randomBytes(16).toString('base64url');
  readonly #keys = generateKeyPairSync('ec', { namedCurve: 'P-256' });
  #counter = 0;

  /** Flags: somebody touched it (1), a key comes with it (0x40). */
  #data(rp: string, flags: number, more: readonly Buffer[] = []): Buffer {
    const counter = Buffer.alloc(4);
    counter.writeUInt32BE((this.#counter += 1));
    return Buffer.concat([sha256(rp), Buffer.from([flags]), counter, ...more]);
  }
  #client(type: string, { challenge, origin }: Asked): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
  }

  make(asked: Asked): PasskeyMade {
    const { x = '', y = '' } = this.#keys.publicKey.export({ format: 'jwk' });
    const key = new Map<number, Item>([
      [1, 2],
      [3, -7],
      [-1, 1],
      [-2, Buffer.from(x, 'base64url')],
      [-3, Buffer.from(y, 'base64url')],
    ]);
    const id = Buffer.from(this.id, 'base64url');
    const data = this.#data(asked.rp, 0x41, [Buffer.alloc(16), Buffer.from([0, id.length]), id, cbor(key)]);
    return {
      id: this.id,
      rawId: this.id,
      type: 'public-key',
      response: {
        clientDataJSON: this.#client('webauthn.create', asked).toString('base64url'),
        attestationObject: cbor(
          new Map<string, Item>([
            ['fmt', 'none'],
            ['attStmt', new Map()],
            ['authData', data],
          ]),
        ).toString('base64url'),
        transports: ['usb'],
      },
      clientExtensionResults: {},
    };
  }

  use(asked: Asked): PasskeyUsed {
    const client = this.#client('webauthn.get', asked);
    const data = this.#data(asked.rp, 0x01);
    return {
      id: this.id,
      rawId: this.id,
      type: 'public-key',
      response: {
        clientDataJSON: client.toString('base64url'),
        authenticatorData: data.toString('base64url'),
        signature: sign('sha256', Buffer.concat([data, sha256(client)]), this.#keys.privateKey).toString('base64url'),
      },
      clientExtensionResults: {},
    };
  }
}
