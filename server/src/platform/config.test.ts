import { describe, expect, it } from 'vitest';
import { ConfigRefused, readConfig } from './config.ts';

const NEEDED = { TOLVEK_SECRET: 'x'.repeat(32), TOLVEK_SMTP: 'smtp://127.0.0.1' };

describe('the configuration', () => {
  it('suggests to a first start who emails come from, however that is written', () => {
    const sender = (TOLVEK_MAIL_FROM: string) => {
      const { sender: address, senderName } = readConfig({ ...NEEDED, TOLVEK_MAIL_FROM }).desk;
      return [address, senderName];
    };
    expect(sender('desk@tarnhill.example')).toEqual(['desk@tarnhill.example', '']);
    expect(sender('Garden desk <desk@tarnhill.example>')).toEqual(['desk@tarnhill.example', 'Garden desk']);
    expect(sender('"Marsh, Odile" <odile@tarnhill.example>')).toEqual(['odile@tarnhill.example', 'Marsh, Odile']);
    expect(readConfig(NEEDED).desk).toEqual({ name: '', organisation: '', sender: '', senderName: '' });
  });

  it('is refused with every reason at once', () => {
    const refusal = (env: object): string => {
      try {
        readConfig(env as Record<string, string>);
        return '';
      } catch (error) {
        return error instanceof ConfigRefused ? error.message : String(error);
      }
    };
    expect(refusal(NEEDED)).toBe('');
    for (const name of ['TOLVEK_SECRET', 'TOLVEK_SMTP']) expect(refusal({})).toContain(name);
    expect(refusal({ ...NEEDED, TOLVEK_TEXTS: 'https://texts.example/v1' })).toContain('TOLVEK_TEXTS_FROM');
    const texts = { TOLVEK_TEXTS: 'https://texts.example/v1', TOLVEK_TEXTS_FROM: '+353214960000' };
    expect(readConfig({ ...NEEDED, ...texts }).texts).toEqual({
      ...{ url: 'https://texts.example/v1', token: '', from: '+353214960000' },
    });
    expect(refusal({ ...NEEDED, TOLVEK_SECRET: 'short', PORT: 'many' })).toMatch(
      /TOLVEK_SECRET[\s\S]*PORT|PORT[\s\S]*TOLVEK_SECRET/,
    );
  });
});
