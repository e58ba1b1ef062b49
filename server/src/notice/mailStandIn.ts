import type { AddressInfo } from 'node:net';
import { simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';
import type { Clock } from '../platform/clock.ts';
import type { Database } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import { patiently } from '../platform/patience.ts';
import type { Troubles } from '../platform/troubles.ts';
import { letters } from './tables.ts';

/** A small mail server on the loopback address that keeps what it receives for the Mailroom. */
export async function startMailStandIn(
  db: Database,
  clock: Clock,
  troubles: Troubles,
): Promise<{ url: string; close: () => Promise<void> }> {
  const server = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    size: 5 * 1024 * 1024,
    logger: false,
    onData(stream, _session, callback) {
      simpleParser(stream)
        .then(async (mail) => {
          const to = Array.isArray(mail.to) ? mail.to : mail.to ? [mail.to] : [];
          await patiently({ troubles }, () =>
            db
              .insert(letters)
              .values({
                id: newId(),
                messageId: mail.messageId ?? newId(),
                receivedAt: clock.now(),
                from: mail.from?.text ?? '',
                to: to.map((each) => each.text).join(', '),
                subject: mail.subject ?? '',
                text: mail.text ?? '',
                html: typeof mail.html === 'string' ? mail.html : '',
                headers: mail.headerLines.map((line) => ({
                  name: line.line.split(':', 1)[0] ?? line.key,
                  value: line.line.slice(line.line.indexOf(':') + 1).trim(),
                })),
              })
              .onConflictDoNothing()
              .run(),
          );
          callback();
        })
        .catch(callback);
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  const { port } = server.server.address() as AddressInfo;
  return { url: `smtp://127.0.0.1:${port}`, close: () => new Promise((resolve) => server.close(resolve)) };
}
