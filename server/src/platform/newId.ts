import { v7 } from 'uuid';

const SYMBOLS = '0123456789abcdefghjkmnpqrstvwxyz';
const bytes = new Uint8Array(16);

/**
 * A new id: a UUID of version 7 (RFC 9562, 5.7) written as a ULID, in 26 digits of Crockford’s base 32.
 * Ids sort as they were made, so that what is new stands together on the disk; each stands in some hundred
 * places of a request and its indexes, where ten characters less count. Older ones, of 36 hexadecimal digits and
 * hyphens, sort before them: therefore small letters.
 */
export function newId(): string {
  v7(undefined, bytes);
  let id = '';
  let held = 0;
  // The first digit has two leading bits that no byte gives: 26 digits hold 130 bits.
  let bits = 2;
  for (const byte of bytes) {
    held = (held << 8) | byte;
    bits += 8;
    for (; bits >= 5; bits -= 5) id += SYMBOLS[(held >>> (bits - 5)) & 31];
    held &= (1 << bits) - 1;
  }
  return id;
}
