import type { Logger } from 'pino';
import { troubleOf } from './patience.ts';

/**
 * The last net of a process: what nobody caught is written down. What the world around us caused (a
 * locked database, a full disk, a line that broke) does not end the application; a mistake of ours
 * does, with the reason, as nobody knows what it left half done, and whoever watches it starts it
 * again.
 */
export function stayUp(log: Logger): void {
  const isAround = (error: unknown): boolean =>
    troubleOf(error) !== undefined ||
    ['EPIPE', 'ECONNRESET', 'ETIMEDOUT'].includes(String((error as { code?: unknown })?.code));
  for (const event of ['uncaughtException', 'unhandledRejection'] as const)
    process.on(event, (error: unknown) => {
      log.error({ err: error }, 'something was not caught');
      if (event === 'uncaughtException' && !isAround(error)) process.exit(1);
    });
}
