import { createHash, generateKeyPairSync, randomBytes, sign, type KeyObject } from 'node:crypto';
import { isoCBOR } from '@simplewebauthn/server/helpers';
import type { NewPasskey, PasskeyOptions, UsedPasskey } from '@tempera/contract/passkeys';

const sha256 = (of: string | Buffer): Buffer => createHash('sha256').update(of).digest();
const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64url');

const PRESENT = 0x01;
const VERIFIED = 0x04;
const ATTESTED = 0x40;

/** A device that holds one passkey (WebAuthn level 3, section 6; ES256, no attestation), at an address of the test's choice. */
export class Authenticator {
  readonly #key: KeyObject;
  readonly #publicKey: KeyObject;
  readonly #id = randomBytes(32);
  #counter = 0;

  constructor(readonly origin: string) {
    const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
    this.#key = privateKey;
    this.#publicKey = publicKey;
  }

  #clientData(type: 'webauthn.create' | 'webauthn.get', challenge: string): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge, origin: this.origin, crossOrigin: false }));
  }

  #authenticatorData(flags: number): Buffer {
    const counter = Buffer.alloc(4);
    counter.writeUInt32BE(this.#counter);
    return Buffer.concat([sha256(new URL(this.origin).hostname), Buffer.from([flags]), counter]);
  }

  make({ challenge }: PasskeyOptions): NewPasskey['made'] {
    const { x = '', y = '' } = this.#publicKey.export({ format: 'jwk' });
    const coseKey = isoCBOR.encode(
      new Map<number, number | Uint8Array<ArrayBuffer>>([
        [1, 2],
        [3, -7],
        [-1, 1],
        [-2, new Uint8Array(Buffer.from(x, 'base64url'))],
        [-3, new Uint8Array(Buffer.from(y, 'base64url'))],
      ]),
    );
    const authData = Buffer.concat([
      this.#authenticatorData(PRESENT | VERIFIED | ATTESTED),
      Buffer.alloc(16),
      Buffer.from([0, this.#id.length]),
      this.#id,
      coseKey,
    ]);
    const attestation = isoCBOR.encode(
      new Map<string, string | Map<string, string> | Uint8Array<ArrayBuffer>>([
        ['fmt', 'none'],
        ['attStmt', new Map()],
        ['authData', new Uint8Array(authData)],
      ]),
    );
    const id = text(this.#id);
    const clientDataJSON = text(this.#clientData('webauthn.create', challenge));
    const response = { clientDataJSON, attestationObject: text(attestation), transports: ['internal'] };
    return { id, rawId: id, type: 'public-key', response };
  }

  /** @param isVerified whether the device recognised its owner */
  use({ challenge }: PasskeyOptions, isVerified = true): UsedPasskey {
    this.#counter += 1;
    const clientData = this.#clientData('webauthn.get', challenge);
    const data = this.#authenticatorData(PRESENT | (isVerified ? VERIFIED : 0));
    const signature = sign('sha256', Buffer.concat([data, sha256(clientData)]), this.#key);
    const id = text(this.#id);
    const response = { clientDataJSON: text(clientData), authenticatorData: text(data), signature: text(signature) };
    return { id, rawId: id, type: 'public-key', response };
  }
}
