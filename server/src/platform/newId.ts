import { randomFillSync } from 'node:crypto';
import { v7 } from 'uuid';

const SYMBOLS = '0123456789abcdefghjkmnpqrstvwxyz';
const bytes = new Uint8Array(16);

/** Randomness for many ids, asked for at once: each time takes longer than all else here. */
const random = new Uint8Array(256 * 16);
let used = random.length;
/** When the last id was made, epoch ms, and its place in that moment. */
let moment = 0;
let place = 0;

/** The next bytes, after those before them also within a millisecond (RFC 9562, 6.2, method 1). */
function nextBytes(): void {
  if (used === random.length) {
    randomFillSync(random);
    used = 0;
  }
  const own = random.subarray(used, used + 16);
  used += 16;
  const now = Date.now();
  if (now > moment) {
    moment = now;
    place = new DataView(own.buffer, own.byteOffset).getUint32(0) & 0x7fffffff;
  } else {
    place = (place + 1) | 0;
    if (place === 0) moment += 1;
  }
  v7({ random: own, msecs: moment, seq: place }, bytes);
}

/**
 * A new id: a UUID of version 7 (RFC 9562, 5.7) written as a ULID, in 26 digits of Crockford’s base 32.
 * Ids sort as they were made, so that what is new stands together on the disk; each stands in some hundred
 * places of a request and its indexes, where ten characters less count. Older ones, of 36 hexadecimal digits and
 * hyphens, sort before them: therefore small letters.
 */
export function newId(): string {
  nextBytes();
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
