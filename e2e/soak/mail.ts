import { SMTPServer } from 'smtp-server';

/** How a mail server can be. */
export const MOODS = ['well', 'well', 'refusing', 'slow', 'silent'] as const;
export type Mood = (typeof MOODS)[number];

/** A mail server whose moods change; it counts what it acknowledged, by Message-ID. */
export class MoodyMail {
  mood: Mood = 'well';
  readonly received = new Map<string, number>();
  private readonly server = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData: (stream, _session, done) => {
      let text = '';
      stream.on('data', (piece: Buffer) => (text += piece.toString()));
      stream.on('end', () => {
        if (this.mood === 'refusing') return done(Object.assign(new Error('Not now'), { responseCode: 451 }));
        // Whoever is told nothing cannot know whether it was received; so it was.
        const id = /^Message-ID: <(.+)@tolvek>/im.exec(text)?.[1] ?? '';
        this.received.set(id, (this.received.get(id) ?? 0) + 1);
        if (this.mood === 'silent') return;
        setTimeout(done, this.mood === 'slow' ? 400 : 0);
      });
    },
  });

  async open(): Promise<string> {
    this.server.on('error', () => undefined);
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
    return `smtp://127.0.0.1:${(this.server.server.address() as { port: number }).port}`;
  }

  close(): Promise<void> {
    return new Promise((done) => this.server.close(done));
  }
}
