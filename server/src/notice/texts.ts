import type { House } from '../platform/house.ts';
import { post } from './post.ts';

/** One text message. */
interface TextMessage {
  /** The same for every try: by it a gateway knows what it has already. */
  readonly id: string;
  /** E.164. */
  readonly to: string;
  readonly text: string;
}

/** What sends text messages for the house. */
export interface TextGateway {
  /** Hands one over. @throws Error where it was not taken */
  readonly send: (message: TextMessage) => Promise<void>;
}

/**
 * A gateway that speaks the RESTful network interface for messaging of the Open Mobile Alliance (OMA-TS-REST_NetAPI_Messaging
 * V1.0, 6.2: outbound messages), by a bearer token; null where the house has none. In the demo its stand-in.
 */
export function gatewayOf({ texts, mode, url }: House['config']): TextGateway | null {
  const at =
    texts ?? (mode === 'demo' ? { url: `${url}/api/stand-in/texts`, token: 'demo', from: '+353000000' } : null);
  if (!at) return null;
  const sender = `tel:${at.from}`;
  const address = `${at.url.replace(/\/$/, '')}/outbound/${encodeURIComponent(sender)}/requests`;
  return {
    send: async ({ id, to, text }) => {
      const message = {
        outboundSMSMessageRequest: {
          address: [`tel:${to}`],
          senderAddress: sender,
          outboundSMSTextMessage: { message: text },
          clientCorrelator: id,
        },
      };
      const response = await post(address, JSON.stringify(message), {
        ...{ 'content-type': 'application/json', accept: 'application/json', authorization: `Bearer ${at.token}` },
      });
      if (!response.ok) throw new Error(`${response.status} ${response.statusText}`.trim());
    },
  };
}
