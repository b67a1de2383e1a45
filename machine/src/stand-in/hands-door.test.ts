import { expect, test } from 'vitest';
import { handsPath } from './hands-door.ts';

const SECRET = 'a1b2c3';
const asked = (url: string, headers: Record<string, string> = {}) =>
  handsPath({ url, headers: { host: '127.0.0.1:4000', ...headers } }, SECRET);

test('whoever knows the secret looks and lends a hand', () => {
  expect([asked('/a1b2c3/look'), asked('/a1b2c3/'), asked('/a1b2c3/look', { host: 'localhost:4000' })]).toEqual([
    '/look',
    '/',
    '/look',
  ]);
});

test.each([
  ['no secret', '/look', {}],
  ['another secret', '/a1b2c4/look', {}],
  ['a part of it', '/a1b2c/look', {}],
  ['more than it', '/a1b2c3x/look', {}],
  ['nothing behind it', '/a1b2c3', {}],
  ['a page in a browser', '/a1b2c3/', { origin: 'http://127.0.0.1:4180' }],
  ['a page of another site', '/a1b2c3/', { origin: 'https://elsewhere.example' }],
  ['another name for this computer', '/a1b2c3/look', { host: 'rebound.example' }],
])('not with %s', (_, url, headers) => {
  expect(asked(url, headers as Record<string, string>)).toBeUndefined();
});

test('a stand-in without a secret lends no hands', () => {
  expect(handsPath({ url: '//look', headers: { host: '127.0.0.1' } }, '')).toBeUndefined();
});
