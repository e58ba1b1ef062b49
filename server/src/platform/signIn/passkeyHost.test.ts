import { expect, it } from 'vitest';
import { passkeyHost } from './passkeyHost.ts';

it('keys are for the name of a host, and for no number but that of this machine', () => {
  const host = (url: string) => passkeyHost({ url });
  expect(host('https://desk.example.org/')).toBe('desk.example.org');
  expect(host('http://localhost:4310')).toBe('localhost');
  expect(host('http://127.0.0.1:4310')).toBe('localhost');
  expect(host('http://[::1]:4310')).toBe('localhost');
  expect(host('https://192.0.2.7')).toBeNull();
  expect(host('https://[2001:db8::7]:8443')).toBeNull();
});
