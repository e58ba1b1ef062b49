import type { AnswerOf } from '@tolvek/contract';

/** A mailing as it is in force, and what came of it. */
export type MailingView = AnswerOf<'mailings'>['mailings'][number];
