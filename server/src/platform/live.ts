import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { createSession, type Session } from 'better-sse';
import type { Request, Response } from 'express';
import { Problem } from './problem.ts';
import type { Session as SignedIn } from './signIn/session.ts';

interface Listening {
  readonly person: string;
  readonly token: string;
  readonly response: Response;
}

/** Streams one person may have open at once: as many as a browser opens to one address. */
const STREAMS = 6;

/**
 * Open pages that want to hear of changes. They are told only the number of a request they may see.
 */
export class Live {
  private readonly listening = new Map<Session, Listening>();
  /** Streams that are being opened count as well. */
  private readonly open = new Map<string, number>();

  /**
   * `readersOf`: the number of a request, and whom it concerns; null when it is gone. `viewerOf`: who
   * somebody is by now; null when they may not come in any more.
   */
  constructor(
    private readonly readersOf: (
      requestId: string,
    ) => { readonly number: string; readonly concerns: (viewer: Viewer) => boolean } | null,
    private readonly viewerOf: (personId: string) => Viewer | null,
  ) {}

  /** Opens a stream. @throws Problem 429 when this person has six already. */
  async listen(request: Request, response: Response, { viewer, token }: SignedIn): Promise<void> {
    const person = viewer.personId;
    const streams = this.open.get(person) ?? 0;
    if (streams >= STREAMS) throw new Problem(429, 'too-many', refused('tooManyPages'));
    this.open.set(person, streams + 1);
    response.once('close', () => {
      const left = (this.open.get(person) ?? 1) - 1;
      if (left > 0) this.open.set(person, left);
      else this.open.delete(person);
    });
    const session = await createSession(request, response);
    this.listening.set(session, { person, token, response });
    session.once('disconnected', () => this.listening.delete(session));
  }

  /** Ends the streams of a session that signed out. */
  end(token: string): void {
    for (const [session, open] of this.listening) if (open.token === token) this.hangUp(session, open);
  }

  /** Ends the streams of somebody who may not come in any more. */
  endOf(person: string): void {
    for (const [session, open] of this.listening) if (open.person === person) this.hangUp(session, open);
  }

  private hangUp(session: Session, { response }: Listening): void {
    session.push('', 'goodbye');
    this.listening.delete(session);
    response.end();
  }

  changed(requestIds: Iterable<string>): void {
    this.tell(requestIds, 'changed');
  }

  /** Who has begun to change a request is otherwise than before. */
  atWork(requestId: string): void {
    this.tell([requestId], 'at-work');
  }

  /** An email waits for somebody to say what becomes of it: told to those whom it concerns, without a word of it. */
  emailCame(concerns: (viewer: Viewer) => boolean): void {
    for (const [session, { person }] of this.listening) {
      const viewer = session.isConnected ? this.viewerOf(person) : null;
      if (viewer && concerns(viewer)) session.push('', 'email');
    }
  }

  private tell(requestIds: Iterable<string>, what: 'changed' | 'at-work'): void {
    if (this.listening.size === 0) return;
    const viewers = new Map<string, Viewer | null>();
    for (const { person } of this.listening.values())
      if (!viewers.has(person)) viewers.set(person, this.viewerOf(person));
    for (const id of requestIds) {
      const found = this.readersOf(id);
      if (!found) continue;
      for (const [session, { person }] of this.listening) {
        const viewer = viewers.get(person);
        if (!viewer) continue;
        if (session.isConnected && found.concerns(viewer)) session.push({ number: found.number }, what);
      }
    }
  }

  /** Who may see and do what is otherwise than before: every open page reads anew what it shows. */
  accessChanged(): void {
    for (const session of this.listening.keys()) if (session.isConnected) session.push('', 'access');
  }

  /** Ends every stream, so that the server can stop. */
  close(): void {
    for (const [session, open] of this.listening) this.hangUp(session, open);
  }
}
