/** An answer as a program is told it: by its field, as it is kept and as people read it. */
export interface ToldAnswer {
  readonly field: string;
  readonly label: string;
  readonly value: unknown;
  readonly text: string;
}

/** What a program is told of a request. Moments are ISO 8601; what nobody said is null or empty. */
export interface ToldRequest {
  readonly number: string;
  /** What it is called in lists. */
  readonly subject: string;
  readonly form: string;
  readonly register: string;
  readonly stage: string;
  readonly phase: string;
  readonly team: string | null;
  readonly handler: string | null;
  readonly priority: string | null;
  readonly requester: string | null;
  readonly arrived: string;
  readonly due: string | null;
  readonly url: string;
}

/** What happened, by which notice it is told. */
export interface ToldEvent {
  readonly notice: { readonly key: string; readonly name: string };
  readonly request: ToldRequest;
  /** Who did it, empty for the desk itself; and what they wrote. */
  readonly happened: { readonly by: string; readonly text: string };
  /** In the words of the notice; null where it has none of its own. */
  readonly words: { readonly subject: string; readonly text: string } | null;
  /** Those that the program may read; null where the notice shows no answers. */
  readonly answers: readonly ToldAnswer[] | null;
}

/** An event as programs are told it: CloudEvents 1.0, in its JSON format. */
export interface CloudEvent {
  readonly specversion: '1.0';
  readonly id: string;
  readonly source: string;
  readonly type: string;
  readonly subject: string;
  readonly time: string;
  readonly datacontenttype: 'application/json';
  readonly data: ToldEvent;
}

/** What a program is sent, as a media type (CloudEvents 1.0, JSON format, 3). */
export const EVENT_MEDIA = 'application/cloudevents+json';

/**
 * One event. It has the same id each time it is sent, by which a program knows what it has already.
 *
 * @param on what happened, as notices name it
 * @param at when, epoch ms
 */
export const eventOf = (
  { id, source, on, at }: { readonly id: string; readonly source: string; readonly on: string; readonly at: number },
  data: ToldEvent,
): CloudEvent => ({
  ...{ specversion: '1.0', id, source, type: `tolvek.request.${on}`, subject: data.request.number },
  ...{ time: new Date(at).toISOString(), datacontenttype: 'application/json', data },
});

/** What is signed of what is sent (Standard Webhooks 1.0.0): its id, when it goes in seconds since 1970, and itself. */
export const signedPart = (id: string, seconds: number, body: string): string => `${id}.${seconds}.${body}`;

/** What an answer of a program means for what it was sent. `wait`: how long it asks for, ms. */
export type Outcome =
  | { readonly is: 'taken' }
  | { readonly is: 'refused' }
  | { readonly is: 'again'; readonly wait: number };

/** The longest that a program can ask to be waited for, ms. */
const LONGEST = 3_600_000;

/**
 * Whether what was sent is taken: by any 2xx. `410 Gone` means that it is wanted no more; anything else that it is to be
 * sent again, after as long as it says where it says so (RFC 9110, 10.2.3, in seconds).
 */
export function outcomeOf(status: number, retryAfter: string | null = null): Outcome {
  if (status >= 200 && status < 300) return { is: 'taken' };
  if (status === 410) return { is: 'refused' };
  const seconds = /^\d{1,9}$/.test(retryAfter ?? '') ? Number(retryAfter) : 0;
  return { is: 'again', wait: Math.min(LONGEST, seconds * 1_000) };
}
