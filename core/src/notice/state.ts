import { type Said, said } from '@tolvek/words';

/**
 * What has become of an email. `together`: it went in one with others. `later`: it goes at a time of its own. `unwanted`: its
 * reader wants none. `settled`: nothing was left to tell. `off`: its form does not send it. `hidden`: its reader may not read
 * what it is about. `unreachable`: they have no number for text messages. `bell`: it stands under their bell alone.
 */
export const EMAIL_STATES = [
  ...([
    'waiting',
    'sent',
    'failed',
    'later',
    'together',
    'unwanted',
    'settled',
    'off',
    'hidden',
    'unreachable',
    'bell',
  ] as const),
] as const;

/** What the emails of a desk are looked through by. */
export const SENT_STATES = ['all', 'failed', 'waiting', 'later', 'sent', 'unsent'] as const;
export type SentState = (typeof SENT_STATES)[number];

/** What has become of an email; moments are ISO 8601. */
export interface EmailState {
  readonly state: (typeof EMAIL_STATES)[number];
  /** When it was caused; and when it went, or goes. */
  readonly at: string;
  readonly goes: string | null;
  /** What the mail server said last, where it took it not. */
  readonly error: string | null;
  /** It goes as a text message. */
  readonly isText?: boolean | undefined;
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
