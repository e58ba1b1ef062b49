import { freshKey } from '../form/index.ts';

/** What a way to sign in is called in the address that its provider leads back to, from its name. */
export const providerKey = (name: string, taken: readonly string[]): string =>
  freshKey(name, new Set(['credential', ...taken]));
