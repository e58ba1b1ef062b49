import { type Said, said } from '@tolvek/words';

/** What has become of an email; moments are ISO 8601. */
export interface EmailState {
  readonly state: 'waiting' | 'sent' | 'failed' | 'later' | 'together' | 'unwanted' | 'settled' | 'off' | 'hidden';
  /** When it was caused; and when it went, or goes. */
  readonly at: string;
  readonly goes: string | null;
  /** What the mail server said last, where it took it not. */
  readonly error: string | null;
}

export function emailStateInWords({ state, at, goes, error }: EmailState): Said {
  switch (state) {
    case 'sent':
    case 'later':
      return said(`hearing:state.${state}`, { goes: goes ?? at });
    case 'failed':
      return said('hearing:state.failed', { error: error ?? '' });
    default:
      return said(`hearing:state.${state}`);
  }
}
