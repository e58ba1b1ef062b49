import { DEMO_NOW, demoConfig, seed } from '@tolvek/demo';
import { start } from '@tolvek/server';

/** The application on a folder, at a port, with its letters going to a mail server of the test, or to its own. */
const [folder = '', port = '0', smtp = '', proxies = '0'] = process.argv.slice(2);
const config = demoConfig({ TOLVEK_DATA: folder, PORT: port, TOLVEK_LOG: 'silent' });
const running = await start(
  { ...config, proxies: Number(proxies) },
  {
    demoNow: DEMO_NOW,
    seed: (house) => seed(house, 30),
    ...(smtp ? { smtp } : {}),
  },
);
for (const signal of ['SIGTERM', 'SIGINT'] as const)
  process.once(signal, () => void running.stop().then(() => process.exit(0)));
// Nobody is left who would stop it.
process.once('disconnect', () => process.exit(1));
process.send?.('ready');
