import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { openApiDocument } from '@tolvek/contract/openapi';
import { DEMO_NOW, demoConfig } from '@tolvek/demo';
import { ConfigRefused, readConfig, start } from '@tolvek/server';
import { notices } from '@tolvek/server/schema';
import { describe, expect, it } from 'vitest';
import { Desk, VISIT } from './desk.ts';

describe('starting in production', () => {
  it('refuses with every missing setting at once', () => {
    const refusal = (env: Record<string, string>): string => {
      try {
        readConfig(env);
        return '';
      } catch (error) {
        if (error instanceof ConfigRefused) return error.message;
        throw error;
      }
    };
    expect(refusal({})).toMatch(/TOLVEK_SECRET is missing[\s\S]*TOLVEK_SMTP is missing/);
    expect(refusal({ TOLVEK_SECRET: 'short', TOLVEK_SMTP: 'http://x', PORT: 'many' })).toMatch(
      /PORT[\s\S]*TOLVEK_SECRET is not right. It needs at least 32/,
    );
    expect(refusal({ TOLVEK_SECRET: 'x'.repeat(32), TOLVEK_SMTP: 'smtp://mail.example:587' })).toBe('');
  });

  it('ends with the reason on the terminal', () => {
    const { PATH, HOME } = process.env;
    const { status, stderr } = spawnSync(process.execPath, ['server/built/server.mjs'], {
      cwd: resolve(import.meta.dirname, '../..'),
      env: { PATH, HOME } as NodeJS.ProcessEnv,
      encoding: 'utf8',
    });
    expect([status, stderr]).toEqual([1, expect.stringContaining('TOLVEK_SECRET is missing')]);
  });
});

describe('starting with much to make ready', () => {
  it('tells who calls meanwhile to try again, and answers from then on', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
    let meanwhile: Response | undefined;
    const running = await start(demoConfig({ TOLVEK_DATA: folder, PORT: '0', TOLVEK_LOG: 'error' }), {
      demoNow: DEMO_NOW,
      seed: async (house) => {
        meanwhile = await fetch(`${house.config.url}/api/health`);
      },
    });
    expect([meanwhile?.status, meanwhile?.headers.get('retry-after'), await meanwhile?.json()]).toEqual([
      503,
      '2',
      expect.objectContaining({ title: 'Tolvek is still starting.' }),
    ]);
    expect((await fetch(`${running.url}/api/health`)).status).toBe(200);
    await running.stop();
    rmSync(folder, { recursive: true });
  });
});

describe('the OpenAPI document', () => {
  it('describes every route with who may call it, what it takes and what it answers', () => {
    const document = openApiDocument('0') as {
      openapi: string;
      paths: Record<string, Record<string, { description: string; responses: Record<string, unknown> }>>;
    };
    expect(document.openapi).toBe('3.1.0');
    const operations = Object.values(document.paths).flatMap((path) => Object.values(path));
    expect(operations.length).toBeGreaterThan(30);
    for (const operation of operations) expect(Object.keys(operation.responses)).toEqual(['200', 'default']);
    expect(JSON.stringify(document)).not.toContain('undefined');
  });
});

describe('the notices', () => {
  it('tries again with longer waits, and says so when it gives up', async () => {
    const desk = await Desk.open();
    const { house } = desk.running;
    house.db
      .insert(notices)
      .values({
        id: 'lost',
        kind: 'test',
        toName: 'Nobody',
        toAddress: 'not an address',
        subject: 's',
        said: { text: 't', html: 'h' },
        state: 'waiting',
        nextAttemptAt: 0,
        createdAt: 0,
      })
      .run();
    const state = async () => {
      house.wakeOutbox();
      await desk.running.lettersSent();
      return house.db
        .select()
        .from(notices)
        .all()
        .find((letter) => letter.id === 'lost');
    };
    const waits: number[] = [];
    const clock = house.clock as { now(): number; advance(ms: number): void };
    for (let tries = 1; tries <= 6; tries += 1) {
      const letter = await state();
      expect(letter).toMatchObject({ state: 'waiting', attempts: tries });
      waits.push((letter?.nextAttemptAt ?? 0) - clock.now());
      clock.advance(waits.at(-1) ?? 0);
      clock.advance(1_000);
    }
    expect(waits.every((wait, index) => index === 0 || wait > (waits[index - 1] ?? 0))).toBe(true);
    expect(await state()).toMatchObject({ state: 'failed', attempts: 7, lastError: expect.any(String) });
    // Other letters are not held up by one that can't be sent.
    await (await desk.as('Priya Nakamura-Lind')).submit('come-on-site', {
      ...VISIT,
      arrival: '2026-12-08',
      departure: '2026-12-09',
    });
    expect((await desk.letters()).some((letter) => letter.to.includes('priya'))).toBe(true);
    await desk.close();
  });
});
