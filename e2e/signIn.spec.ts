import { type ChildProcess, fork } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';
import { Secret, TOTP } from 'otpauth';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

const freePort = (): Promise<number> =>
  new Promise((done) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => done(port));
    });
  });

let provider: ChildProcess | undefined;
test.afterEach(() => {
  provider?.disconnect();
  provider = undefined;
});

test('staff sign in with the account of their organisation, once an administrator has added it', async ({
  browser,
  baseURL,
}) => {
  const port = await freePort();
  provider = fork(join(import.meta.dirname, 'house/providerProcess.ts'), {
    execArgv: ['--import', 'tsx'],
    env: { ...process.env, OIDC_PORT: String(port), OIDC_BACK: `${baseURL}/api/auth/callback/station_account` },
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  await new Promise((done) => provider?.once('message', done));

  const ada = await pageOf(browser, 'Ada Quillfeather');
  await ada.goto('/workshop/groundwork');
  await ada.getByRole('link', { name: 'Sign-in' }).click();
  await expect(ada.getByText('To switch passwords off, sign in once')).toBeVisible();
  expect([await seriousTrouble(ada), await spilling(ada)]).toEqual([[], []]);
  await ada.getByRole('button', { name: 'Add a way to sign in …' }).click();
  const dialog = ada.getByRole('dialog');
  await dialog.getByLabel('Issuer').fill(`http://127.0.0.1:${port}/wrong`);
  await dialog.getByLabel('Name on the button').fill('Station account');
  await expect(dialog.getByLabel('Callback address')).toHaveValue(`${baseURL}/api/auth/callback/station_account`);
  await dialog.getByLabel('Client ID').fill('tolvek');
  await dialog.getByLabel('Client secret').fill('a secret of the test');
  await dialog.getByRole('button', { name: 'Check and add' }).click();
  await expect(dialog.getByText('There is no OpenID Connect configuration at this address.')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await dialog.getByLabel('Issuer').fill(`http://127.0.0.1:${port}`);
  await dialog.getByRole('button', { name: 'Check and add' }).click();
  await expect(ada.getByText('0 people have signed in with it')).toBeVisible();

  const page = await (await browser.newContext()).newPage();
  await page.goto('/floor/mine');
  const signIn = page.getByRole('link', { name: 'Sign in with Station account' });
  await expect(signIn).toBeVisible();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
  await atProvider(page, 'stranger');
  await expect(page.getByText('This account has no access here.')).toBeVisible();
  await page.context().clearCookies();
  await page.goto('/floor/mine');
  await atProvider(page, 'bram');
  await expect(page).toHaveURL(/\/floor\/mine/);
  await expect(page.getByRole('button', { name: 'Bram Solheim' })).toBeVisible();

  await ada.reload();
  const line = ada.getByRole('listitem').filter({ hasText: 'Station account' }).first();
  await expect(line).toContainText('1 person has signed in with it');
  await line.getByRole('button', { name: 'Switch off' }).click();
  await expect(line).toContainText('switched off');
  await page.context().clearCookies();
  await page.goto('/sign-in');
  await expect(page.getByLabel('Password')).toBeVisible();
  await expect(signIn).toBeHidden();
});

/** Goes to the provider from the sign-in page, says who one is there, and is led back. */
async function atProvider(page: Page, who: string): Promise<void> {
  await page.getByRole('link', { name: 'Sign in with Station account' }).click();
  await page.locator('input[name=login]').fill(who);
  await page.locator('input[name=password]').fill('any');
  await page.getByRole('button').click();
  await page.getByRole('button', { name: 'Continue' }).click();
}

test('somebody sets up a code after their password, is asked for it, and asks for none any more', async ({
  browser,
}) => {
  const page = await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage();
  const enter = async (): Promise<void> => {
    await page.goto('/sign-in?back=/account');
    await page.getByLabel('Email address').fill('edda.kilbride@skerrow.example');
    await page.getByLabel('Password').fill('tolvek-demo');
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  };
  await enter();
  await page.getByRole('button', { name: 'Set up a code …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Current password').fill('tolvek-demo');
  await dialog.getByRole('button', { name: 'Continue' }).click();
  await expect(dialog.getByRole('img')).toBeHidden();
  const key = (await dialog.locator('code').textContent()) ?? '';
  const code = () => new TOTP({ secret: Secret.fromBase32(key) }).generate();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
  await dialog.getByLabel('Type the code that the app shows now').fill('000000');
  await dialog.getByRole('button', { name: 'Switch it on' }).click();
  await expect(dialog.getByText('This code is not right')).toBeVisible();
  await dialog.getByLabel('Type the code that the app shows now').fill(code());
  await dialog.getByRole('button', { name: 'Switch it on' }).click();
  await expect(page.getByText('You are asked for a code after your password.')).toBeVisible();

  await page.context().clearCookies();
  await enter();
  await expect(page.getByRole('heading', { name: 'Enter the code' })).toBeVisible();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
  await page.getByLabel('Code', { exact: true }).fill(code());
  await page.getByRole('button', { name: 'Continue' }).click();
  await page.getByRole('button', { name: 'Ask for no code any more …' }).click();
  await dialog.getByLabel('Current password').fill('tolvek-demo');
  await dialog.getByRole('button', { name: 'Ask for no code any more' }).click();
  await expect(page.getByRole('button', { name: 'Set up a code …' })).toBeVisible();
});

test('somebody adds a passkey of their device and signs in with it, until it is taken away', async ({
  browser,
  baseURL,
}) => {
  // Keys are for the name of a host, never for a number.
  const here = (baseURL ?? '').replace('127.0.0.1', 'localhost');
  const page = await (await browser.newContext({ baseURL: here })).newPage();
  const devices = await page.context().newCDPSession(page);
  await devices.send('WebAuthn.enable');
  const { authenticatorId } = await devices.send('WebAuthn.addVirtualAuthenticator', {
    options: {
      ...{ protocol: 'ctap2', transport: 'internal', hasResidentKey: true, hasUserVerification: true },
      ...{ isUserVerified: true, automaticPresenceSimulation: true },
    },
  });
  await page.goto('/sign-in?back=/account');
  await page.getByLabel('Email address').fill('lorcan.abernethy@skerrow.example');
  await page.getByLabel('Password').fill('tolvek-demo');
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByLabel('Name of the device').fill('Dock laptop');
  await page.getByRole('button', { name: 'Add a passkey' }).click();
  await expect(page.getByText('You can sign in with this passkey now.')).toBeVisible();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

  const enter = async (): Promise<void> => {
    await page.context().clearCookies();
    await page.goto('/sign-in?back=/account');
    await page.getByRole('button', { name: 'Sign in with a passkey' }).click();
  };
  await enter();
  await expect(page.getByRole('heading', { name: 'Lorcan Abernethy' })).toBeVisible();
  expect(await seriousTrouble(page)).toEqual([]);

  // A device that does not make sure whose hand it is in opens nothing.
  await devices.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: false });
  await enter();
  await expect(page.getByText('The device did not give a passkey.')).toBeVisible();
  await devices.send('WebAuthn.setUserVerified', { authenticatorId, isUserVerified: true });
  await enter();
  await page.getByRole('listitem').filter({ hasText: 'Dock laptop' }).getByRole('button', { name: 'Remove' }).click();
  await expect(page.getByText('The passkey is removed.')).toBeVisible();
  await enter();
  await expect(page.getByText('This passkey is not known here')).toBeVisible();
});
