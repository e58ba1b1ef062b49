import { relationTo } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { createSession, type Session } from 'better-sse';
import type { Request, Response } from 'express';
import { partiesOf } from '../register/queries.ts';
import type { Database } from './database.ts';

/**
 * Open pages that want to hear of changes. They are told only the number of a request they may see.
 */
export class Live {
  private readonly listening = new Map<Session, Viewer>();

  constructor(private readonly db: Database) {}

  async listen(request: Request, response: Response, viewer: Viewer): Promise<void> {
    const session = await createSession(request, response);
    this.listening.set(session, viewer);
    session.once('disconnected', () => this.listening.delete(session));
  }

  changed(requestIds: Iterable<string>): void {
    if (this.listening.size === 0) return;
    for (const id of requestIds) {
      const found = partiesOf(this.db, id);
      if (!found) continue;
      for (const [session, viewer] of this.listening) {
        const relation = relationTo(found.parties, viewer);
        if (session.isConnected && (relation.isDesk || relation.isRequester))
          session.push({ number: found.number }, 'changed');
      }
    }
  }

  /** Ends every stream, so that the server can stop. */
  close(): void {
    for (const session of this.listening.keys()) session.push('', 'goodbye');
    this.listening.clear();
  }
}
