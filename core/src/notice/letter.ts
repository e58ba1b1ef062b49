import type { Revealed, VisibleValues } from '../access/index.ts';

/** A letter before it is dressed as text and HTML. */
export interface Letter {
  readonly subject: string;
  readonly greeting: string;
  readonly paragraphs: readonly string[];
  readonly facts: readonly { readonly label: string; readonly shown: string }[];
  readonly action: { readonly label: string; readonly note: string };
}

export interface NoticeContext {
  readonly number: string;
  readonly formTitle: string;
  /** The request's subject as this reader may know it. */
  readonly subject: Revealed<string>;
  /** The fields this reader may read; nothing else can get into a letter. */
  readonly visible: Revealed<VisibleValues>;
  readonly reader: string;
}

export type NoticeEvent =
  | { readonly kind: 'received'; readonly due: string }
  | { readonly kind: 'new-request'; readonly team: string; readonly due: string }
  | { readonly kind: 'approval-asked'; readonly step: string; readonly expires: string }
  | { readonly kind: 'approved' | 'refused'; readonly by: string; readonly comment: string }
  | { readonly kind: 'assigned'; readonly by: string }
  | { readonly kind: 'message'; readonly from: string; readonly text: string }
  | { readonly kind: 'stage'; readonly stage: string; readonly finished: boolean }
  | { readonly kind: 'reminder'; readonly left: string; readonly due: string }
  | { readonly kind: 'escalation'; readonly due: string; readonly handler: string };

/** Writes the letter for one event and one reader. */
export function draftNotice(event: NoticeEvent, context: NoticeContext): Letter {
  const { number, formTitle, subject } = context;
  const facts = context.visible.fields
    .filter((field) => field.shown !== '')
    .map(({ label, shown }) => ({ label, shown }));
  const letter = (
    title: string,
    paragraphs: readonly string[],
    action: string,
    withFacts = true,
    note = '',
  ): Letter => ({
    subject: `${number} · ${title}`,
    greeting: `Dear ${context.reader},`,
    paragraphs: paragraphs.filter((paragraph) => paragraph !== ''),
    facts: withFacts ? facts : [],
    action: { label: action, note },
  });
  switch (event.kind) {
    case 'received':
      return letter(
        `${formTitle}: we have your request`,
        [
          `Thank you. Your request has the number ${number}. You hear from us by ${event.due}.`,
          'This is what you sent:',
        ],
        'See how it stands',
      );
    case 'new-request':
      return letter(
        subject,
        [`A new request has reached ${event.team}. It should be finished by ${event.due}.`],
        'Open the request',
      );
    case 'approval-asked':
      return letter(
        `Please decide: ${subject}`,
        [`This request waits for your decision as ${event.step.toLowerCase()}.`],
        'Read and decide',
        true,
        `The link is for you alone, works once, and ends on ${event.expires}.`,
      );
    case 'approved':
      return letter(
        `${formTitle}: approved`,
        [`Your request ${number} was approved by ${event.by}.`, event.comment],
        'See how it stands',
        false,
      );
    case 'refused':
      return letter(
        `${formTitle}: not approved`,
        [`Your request ${number} was not approved by ${event.by}. The reason given:`, event.comment],
        'See the request',
        false,
      );
    case 'assigned':
      return letter(`Yours: ${subject}`, [`${event.by} gave you this request.`], 'Open the request');
    case 'message':
      return letter(`${formTitle}: a message from ${event.from}`, [event.text], 'Read and answer', false);
    case 'stage':
      return letter(
        `${formTitle}: ${event.stage}`,
        [event.finished ? `Your request ${number} is finished.` : `Your request ${number} is now: ${event.stage}.`],
        'See how it stands',
        false,
      );
    case 'reminder':
      return letter(
        `${event.left} left: ${subject}`,
        [`This request is due ${event.due}. There is ${event.left} of working time left.`],
        'Open the request',
        false,
      );
    case 'escalation':
      return letter(
        `Late: ${subject}`,
        [
          `This request was due ${event.due} and is not finished. ${event.handler ? `${event.handler} has it.` : 'Nobody has taken it.'}`,
        ],
        'Open the request',
        false,
      );
  }
}

/**
 * The letter that asks an outside requester to confirm their address. It repeats nothing of what
 * was typed.
 */
export function draftConfirmation(input: { readonly formTitle: string; readonly expires: string }): Letter {
  return {
    subject: `${input.formTitle}: confirm your address to send it`,
    greeting: 'Good day,',
    paragraphs: [
      'You filled in a form at our desk. One step is left: confirm that this address is yours, and your request is sent.',
      'If this was not you, leave this letter alone; nothing will be sent.',
    ],
    facts: [],
    action: { label: 'Confirm and send', note: `The link works once and ends on ${input.expires}.` },
  };
}

/**
 * The letter with the link to go on with a form that was begun. It repeats nothing of what was
 * typed.
 */
export function draftGoingOn(input: { readonly formTitle: string; readonly expires: string }): Letter {
  return {
    subject: `${input.formTitle}: go on where you stopped`,
    greeting: 'Good day,',
    paragraphs: [
      'What you typed is kept. Nothing was sent yet: open the form again with this link, on any device, and go on.',
      'If this was not you, leave this letter alone.',
    ],
    facts: [],
    action: {
      label: 'Go on with the form',
      note: `The link is for you alone and ends on ${input.expires}.`,
    },
  };
}
