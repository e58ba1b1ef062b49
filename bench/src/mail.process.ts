import { mailServer } from './mailServer.ts';
import { answering } from './processes.ts';

/** A mail server in a process of its own: the stand-in’s own work is not measured. */
const { url } = await mailServer();
answering({ url: () => url });
