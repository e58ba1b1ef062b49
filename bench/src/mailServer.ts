import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** A mail server that takes every letter and keeps none, and where it is. */
export async function mailServer(): Promise<{ readonly server: SMTPServer; readonly url: string }> {
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
  return { server, url: `smtp://127.0.0.1:${(server.server.address() as AddressInfo).port}` };
}
