import type { Viewer } from '../people/index.ts';
import { FACT_NAMES } from '../register/index.ts';
import { accessTo } from './accessTo.ts';
import type { Protection } from './protection.ts';

/** Whether a viewer may have requests looked through by what some of their fields hold. */
export interface MayAsk {
  /** Names that stand for nothing here as far as this viewer is concerned; none when they may ask. */
  readonly unknown: readonly string[];
  /** Whether requests that are the viewer’s own are looked at as well. */
  readonly own: boolean;
}

/**
 * Decides by the plan whether a viewer who works at the desk may ask something of requests that
 * reads these names; never by the requests that happen to be there. A field that is hidden and one
 * that does not exist are the same.
 */
export function mayAsk(names: readonly string[], protection: Protection, viewer: Viewer): MayAsk {
  const fields = new Map(protection.fields.map((field) => [field.key, field]));
  const mayRead = (name: string, isRequester: boolean): boolean => {
    const field = fields.get(name);
    return field !== undefined && accessTo(field, protection, viewer, { isDesk: true, isRequester }).level !== 'hidden';
  };
  const asked = names.filter((name) => !FACT_NAMES.has(name));
  return {
    unknown: asked.filter((name) => !mayRead(name, false)),
    own: asked.every((name) => mayRead(name, true)),
  };
}
