import { SMTPServer } from 'smtp-server';
import { answering } from './processes.ts';

/**
 * A mail server that takes every letter and keeps none: the stand-in’s own work is not measured.
 */
const server = new SMTPServer({
  authOptional: true,
  disableReverseLookup: true,
  disabledCommands: ['STARTTLS', 'AUTH'],
  onData: (stream, _session, done) => {
    stream.resume();
    stream.on('end', () => done());
  },
});
server.on('error', () => undefined);
await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
const { port } = server.server.address() as { port: number };
answering({ url: () => `smtp://127.0.0.1:${port}` });
