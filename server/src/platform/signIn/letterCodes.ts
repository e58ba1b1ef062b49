import { createHmac, timingSafeEqual } from 'node:crypto';

/** Numbers a code can be. */
const CODES = 1_000_000;

/**
 * The code that stands in a letter beside its link: six digits, from a secret of the installation and the id of the
 * link, so that a letter that goes twice is the same.
 */
export function codeOf(secret: string, linkId: string): string {
  const digest = createHmac('sha256', secret).update(`code ${linkId}`).digest();
  return String(digest.readUIntBE(0, 6) % CODES).padStart(6, '0');
}

/** Whether somebody typed a code, however they spaced it. */
export function isCode(typed: string, code: string): boolean {
  const [given, wanted] = [Buffer.from(typed.replace(/[\s-]/g, '')), Buffer.from(code)];
  return given.length === wanted.length && timingSafeEqual(given, wanted);
}
