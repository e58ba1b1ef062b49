import { type ChildProcess, fork } from 'node:child_process';
import { once } from 'node:events';
import { fileURLToPath } from 'node:url';

/** A part of the bench in a process of its own, asked and answering by messages. */
export class Part {
  private next = 0;

  private constructor(private readonly child: ChildProcess) {}

  static async start(file: string, args: readonly string[] = []): Promise<Part> {
    const child = fork(fileURLToPath(new URL(file, import.meta.url)), [...args], {
      execArgv: ['--import', 'tsx'],
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    await Promise.race([
      once(child, 'message'),
      once(child, 'exit').then(([code]) => Promise.reject(new Error(`${file} ended with ${code}`))),
    ]);
    return new Part(child);
  }

  async ask<T>(what: string, input: unknown = null): Promise<T> {
    this.next += 1;
    const id = this.next;
    const answer = new Promise<T>((done, fail) => {
      const listen = (message: { id: number; answer?: T; error?: string }): void => {
        if (message.id !== id) return;
        this.child.off('message', listen);
        if (message.error === undefined) done(message.answer as T);
        else fail(new Error(message.error));
      };
      this.child.on('message', listen);
    });
    this.child.send({ id, what, input });
    return answer;
  }

  async stop(): Promise<void> {
    const gone = once(this.child, 'exit');
    this.child.send({ id: 0, what: 'stop', input: null });
    await gone;
  }
}

type Answers = Readonly<Record<string, (input: never) => unknown>>;

/** What a part does when it is asked; `stop` is asked last. */
export function answering(answers: Answers, stop: () => Promise<void> | void = () => undefined): void {
  process.on('message', ({ id, what, input }: { id: number; what: string; input: unknown }) => {
    if (what === 'stop') {
      void Promise.resolve(stop()).then(() => process.exit(0));
      return;
    }
    Promise.resolve()
      .then(() => (answers[what] as (input: unknown) => unknown)(input))
      .then(
        (answer) => process.send?.({ id, answer }),
        (error: unknown) =>
          process.send?.({ id, error: error instanceof Error ? (error.stack ?? error.message) : String(error) }),
      );
  });
  // Nobody is left to ask.
  process.on('disconnect', () => process.exit(0));
  process.send?.({ id: -1 });
}
