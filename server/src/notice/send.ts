import { and, asc, eq, lte } from 'drizzle-orm';
import nodemailer, { type Transporter } from 'nodemailer';
import type { House } from '../platform/house.ts';
import { outbox } from './tables.ts';

const MINUTE = 60_000;
/** Waits between tries; after the last one the letter counts as failed and the Mailroom says so. */
export const BACK_OFF = [0.5 * MINUTE, 2 * MINUTE, 10 * MINUTE, 30 * MINUTE, 2 * 60 * MINUTE, 8 * 60 * MINUTE] as const;
const AT_ONCE = 50;
/** Connections to the mail server, kept open between letters. */
const LINES = 5;

/**
 * Sends what waits in the outbox, oldest first. A letter that was handed over but not marked (a
 * crash in between) is sent again under the same Message-ID, so that the receiving side can drop
 * the copy.
 */
export class Sender {
  private running: Promise<void> | null = null;
  private again = false;
  private closed = false;
  private readonly transport: Transporter;

  constructor(
    private readonly house: Pick<House, 'db' | 'clock' | 'config' | 'log'>,
    smtp: string,
  ) {
    this.transport = nodemailer.createTransport(
      { url: smtp, pool: true, maxConnections: LINES, maxMessages: Number.POSITIVE_INFINITY },
      { from: house.config.mailFrom },
    );
  }

  /** Starts a round, or lets the running one look once more. */
  wake(): void {
    if (this.closed) return;
    this.again = true;
    this.running ??= this.rounds().finally(() => {
      this.running = null;
      if (this.again) this.wake();
    });
  }

  /** Resolves when nothing is being sent. */
  async idle(): Promise<void> {
    while (this.running) await this.running;
  }

  async close(): Promise<void> {
    this.closed = true;
    this.again = false;
    await this.idle();
    this.transport.close();
  }

  private async rounds(): Promise<void> {
    while (this.again && !this.closed) {
      this.again = false;
      const { db, clock } = this.house;
      const waiting = db
        .select()
        .from(outbox)
        .where(and(eq(outbox.state, 'waiting'), lte(outbox.nextAttemptAt, clock.now())))
        .orderBy(asc(outbox.nextAttemptAt))
        .limit(AT_ONCE)
        .all();
      await Promise.all(waiting.map((letter) => this.send(letter)));
      if (waiting.length === AT_ONCE) this.again = true;
    }
  }

  private async send(letter: typeof outbox.$inferSelect): Promise<void> {
    const { db, clock, log } = this.house;
    const attempts = letter.attempts + 1;
    try {
      await this.transport.sendMail({
        messageId: `<${letter.id}@tolvek>`,
        to: { name: letter.toName, address: letter.toAddress },
        subject: letter.subject,
        text: letter.text,
        html: letter.html,
        headers: { 'Auto-Submitted': 'auto-generated', 'X-Tolvek-Notice': letter.kind },
      });
      db.update(outbox)
        .set({ state: 'sent', sentAt: clock.now(), attempts, lastError: null })
        .where(eq(outbox.id, letter.id))
        .run();
    } catch (error) {
      const wait = BACK_OFF[attempts - 1];
      const lastError = error instanceof Error ? error.message : String(error);
      log.warn({ letter: letter.id, attempts, lastError }, 'a letter could not be sent');
      db.update(outbox)
        .set(
          wait === undefined
            ? { state: 'failed', attempts, lastError }
            : { attempts, lastError, nextAttemptAt: clock.now() + wait },
        )
        .where(eq(outbox.id, letter.id))
        .run();
    }
  }
}
