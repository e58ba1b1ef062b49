import base from './playwright.config.ts';
export default { ...base, timeout: 40_000, expect: { timeout: 5_000 }, use: { ...base.use, actionTimeout: 6_000 } };
