import { expect } from '@playwright/test';
import { type DirectoryFile, keepInStep } from '@tolvek/demo';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

const someone = (id: string, given: string, family: string, more: object = {}): DirectoryFile['people'][number] => ({
  ...{ id, given, family, email: `${given}.${family}@buoys.example`.toLowerCase(), active: true },
  ...more,
});

test('a directory adds, changes and removes people and a group, with a token that is made and ended here', async ({
  browser,
  baseURL,
}) => {
  const ada = await pageOf(browser, 'Ada Quillfeather');
  await ada.goto('/workshop');
  await ada.getByRole('link', { name: 'Groundwork' }).click();
  await ada.getByRole('link', { name: 'Directory' }).click();
  await ada.getByRole('button', { name: 'New token …' }).click();
  await ada.getByLabel('Name, for example of the directory').fill('Buoy crews');
  expect(await seriousTrouble(ada)).toEqual([]);
  await ada.getByRole('button', { name: 'Create the token' }).click();
  const token = await ada.getByRole('textbox', { name: 'New token for a directory' }).inputValue();
  await ada.getByRole('button', { name: 'I have copied it' }).click();
  await expect(ada.getByRole('listitem').filter({ hasText: 'Buoy crews' }).first()).toContainText('not used yet');
  expect([await seriousTrouble(ada), await spilling(ada)]).toEqual([[], []]);

  // All that other directories brought stays as it is: each names whom it keeps by ids of its own.
  const to = { address: `${baseURL}/scim/v2`, token };
  const others = await there(to);
  const file = (people: DirectoryFile['people'], members: readonly string[]): DirectoryFile => ({
    people: [...others.people, ...people],
    groups: [...others.groups, { id: 'b-crew', name: 'Buoy crew', members: [...members] }],
  });
  const first = file(
    [someone('b1', 'Wilma', 'Tangen'), someone('b2', 'Ravi', 'Osei', { title: 'Rigger' })],
    ['b1', 'b2'],
  );
  expect(await keepInStep(first, to)).toEqual({ added: 3, changed: 0, removed: 0, refused: [] });
  expect(await keepInStep(first, to)).toEqual({ added: 0, changed: 0, removed: 0, refused: [] });

  await ada.goto('/workshop/groundwork/people');
  await ada.getByRole('searchbox', { name: 'Find by name' }).fill('buoy crew');
  await expect(ada.getByRole('link', { name: 'Wilma Tangen' })).toBeVisible();
  await ada.getByRole('link', { name: 'Ravi Osei' }).click();
  await expect(ada.getByText('This person comes from the directory.')).toBeVisible();
  await expect(ada.getByLabel('Name', { exact: true })).toBeDisabled();
  await expect(ada.getByLabel('Position')).toHaveValue('Rigger');
  await expect(ada.getByLabel('Position')).toBeDisabled();
  expect(await seriousTrouble(ada)).toEqual([]);

  const second = file([someone('b2', 'Ravi', 'Osei-Hahn', { email: 'ravi.osei@buoys.example' })], ['b2']);
  expect(await keepInStep(second, to)).toMatchObject({ added: 0, changed: 2, removed: 1, refused: [] });
  await ada.goto('/workshop/groundwork/groups/buoy_crew');
  await expect(ada.getByText('This group comes from the directory.')).toBeVisible();
  await expect(ada.getByRole('link', { name: 'Ravi Osei-Hahn' })).toBeVisible();
  await expect(ada.getByRole('link', { name: 'Wilma Tangen' })).toBeHidden();
  await expect(ada.getByText(/the directory,/).first()).toBeVisible();

  await ada.goto('/workshop/groundwork/directory');
  const line = ada.getByRole('listitem').filter({ hasText: 'Buoy crews' }).first();
  await expect(line).toContainText('last used');
  await line.getByRole('button', { name: 'End …' }).click();
  await ada.getByRole('button', { name: 'End the token' }).click();
  await expect(line).toContainText('ended');
  await expect(keepInStep(second, to)).rejects.toThrow('401');
});

/** What directories brought before, as a file of its own would say it. */
async function there({ address, token }: { address: string; token: string }): Promise<DirectoryFile> {
  const all = async (endpoint: string) => {
    const answer = await fetch(`${address}${endpoint}?count=100`, { headers: { Authorization: `Bearer ${token}` } });
    // biome-ignore lint/suspicious/noExplicitAny: resources of two kinds
    return ((await answer.json()) as { Resources: readonly any[] }).Resources;
  };
  const [users, groups] = [await all('/Users'), await all('/Groups')];
  const ENTERPRISE = 'urn:ietf:params:scim:schemas:extension:enterprise:2.0:User';
  const own = new Map(users.map(({ id, externalId }) => [id, externalId]));
  return {
    people: users.map((user) => ({
      ...{ id: user.externalId, given: user.name.givenName, family: user.name.familyName, email: user.userName },
      ...{ title: user.title, department: user[ENTERPRISE]?.department, active: user.active },
      manager: own.get(user[ENTERPRISE]?.manager?.value),
    })),
    groups: groups.map(({ externalId, displayName, members = [] }) => ({
      ...{ id: externalId, name: displayName },
      members: members.map(({ value }: { value: string }) => own.get(value)),
    })),
  };
}
