import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** A key of its own for what is kept sealed, from the secret of the installation. */
const keyOf = (secret: string): Buffer => Buffer.from(hkdfSync('sha256', secret, '', 'tolvek sealed', 32));

/** Seals a text so that only this installation reads it: AES-256-GCM, with what it needs before it, in Base64. */
export function seal(secret: string, text: string): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', keyOf(secret), iv);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]).toString('base64');
}

/** What was sealed; null where it was with another secret, or is not whole. */
export function unseal(secret: string, kept: string): string | null {
  const bytes = Buffer.from(kept, 'base64');
  try {
    const decipher = createDecipheriv('aes-256-gcm', keyOf(secret), bytes.subarray(0, 12));
    decipher.setAuthTag(bytes.subarray(12, 28));
    return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
  } catch {
    return null;
  }
}
