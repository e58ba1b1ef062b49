import type { AddressInfo } from 'node:net';
import { said } from '@tolvek/words';
import { SMTPServer } from 'smtp-server';
import { CannotStart } from '../platform/cannotStart.ts';
import type { House } from '../platform/house.ts';
import { Problem } from '../platform/problem.ts';
import { deskOf } from '../settings/queries.ts';
import { parseEmail, takeEmail } from './take.ts';

const MB = 1024 * 1024;
/** As large an email is taken, bytes: five files of 20 MB grow by a third on the way. */
const MOST_BYTES = 40 * MB;
/** How many emails come in at once: each is held in memory while it is read. */
const AT_ONCE = 5;

/** Thrown where nothing can be listened to at an address. */
class MailDoorTaken extends CannotStart {}

/** A door for emails that stands: until it begins, whoever brings one is told to come again. */
export interface MailDoor {
  /** `smtp://host:port`, with the port that it got. */
  readonly url: string;
  readonly begin: (house: House) => void;
  readonly close: () => Promise<void>;
}

/**
 * Takes emails from the mail server of the house, or of the demo, by SMTP (RFC 5321): those to the address of the desk,
 * and to that address with a `+` and more before the `@` (RFC 5233). An email is confirmed once it is stored.
 *
 * @param at the address to listen on, `smtp://host:port`; port 0: any
 * @throws MailDoorTaken where that is not to be had
 */
export async function openMailDoor(at: string): Promise<MailDoor> {
  const { hostname, port } = new URL(at);
  let house: House | null = null;
  const server = new SMTPServer({
    ...{ authOptional: true, disableReverseLookup: true, disabledCommands: ['STARTTLS', 'AUTH'], logger: false },
    ...{ size: MOST_BYTES, maxClients: AT_ONCE, socketTimeout: 60_000, closeTimeout: 5_000 },
    onRcptTo({ address }, _session, callback) {
      if (!house?.isLaid()) callback(later());
      else if (isDesk(address, deskOf(house.db).sender.address)) callback();
      else callback(Object.assign(new Error('No such mailbox here'), { responseCode: 550 }));
    },
    onData(stream, session, callback) {
      const { mailFrom } = session.envelope;
      parseEmail(stream)
        .then(async (mail) => {
          if (!house) throw later();
          if (stream.sizeExceeded) throw Object.assign(new Error('The email is too large'), { responseCode: 552 });
          await takeEmail(house, { mail, wayBack: mailFrom ? mailFrom.address : '' });
          callback();
        })
        .catch((error: unknown) => {
          if (!(error instanceof Error && 'responseCode' in error)) {
            // What is wrong around us was told already.
            if (!(error instanceof Problem)) house?.log.error({ err: error }, 'an email could not be taken in');
            callback(later());
          } else callback(error);
        });
    },
  });
  server.on('error', () => undefined);
  await new Promise<void>((resolve, reject) => {
    server.server.once('error', () => reject(new MailDoorTaken(said('commands:mailInTaken', { at }))));
    server.listen(Number(port || 25), hostname.replace(/^\[|\]$/g, ''), resolve);
  });
  const { address, port: got } = server.server.address() as AddressInfo;
  return {
    url: `smtp://${address.includes(':') ? `[${address}]` : address}:${got}`,
    begin: (opened) => {
      house = opened;
    },
    close: () => new Promise((resolve) => server.close(resolve)),
  };
}

/** That whoever brings an email is to come again later (RFC 5321, 4.2.2). */
const later = (): Error => Object.assign(new Error('Please try again later'), { responseCode: 451 });

/** Whether an address is the desk’s, with or without more after a `+`. */
function isDesk(address: string, desk: string): boolean {
  const [here, there] = [address, desk].map((each) => each.toLowerCase().split('@'));
  return here?.[1] === there?.[1] && (here?.[0] === there?.[0] || (here?.[0]?.startsWith(`${there?.[0]}+`) ?? false));
}
