import { expect, test } from '@playwright/test';

// Everything that comes in is read at the door: what does not fit gets one sentence, and nothing is stored or moved.
const address = () => process.env.KERBE_ADDRESS!;

test.describe('the server’s doors', () => {
  const refused: [
    what: string,
    method: 'POST' | 'PUT' | 'PATCH' | 'GET',
    path: string,
    body: unknown,
    status: number,
  ][] = [
    ['a job without a name', 'POST', '/api/jobs', { name: '', unit: 'mm' }, 400],
    ['a job in ells', 'POST', '/api/jobs', { name: 'x', unit: 'ell' }, 400],
    ['a job that is a list', 'POST', '/api/jobs', [], 400],
    ['a save that is no job', 'PUT', '/api/jobs/entrance-board', { base: '1', job: { name: 'x' } }, 400],
    ['a save of nothing', 'PUT', '/api/jobs/entrance-board', {}, 400],
    ['undoing from nowhere', 'POST', '/api/jobs/entrance-board/undo', { base: 'x'.repeat(200) }, 400],
    ['a revision that is none', 'GET', '/api/jobs/entrance-board/revisions/999999999', undefined, 404],
    ['a job that is none', 'GET', '/api/jobs/no-such-job', undefined, 404],
    ['an asset whose name is no hash', 'GET', '/api/assets/etc-passwd', undefined, 400],
    ['many assets, of which one’s name is no hash', 'POST', '/api/assets/bundle', { hashes: ['../etc'] }, 400],
    ['more assets than a job can have', 'POST', '/api/assets/bundle', { hashes: Array(501).fill('0'.repeat(64)) }, 400],
    ['a program whose name is no hash', 'GET', '/api/programs/..%2F..%2Fetc%2Fpasswd', undefined, 404],
    [
      'a command that the bench does not know',
      'POST',
      '/api/benches/dome-workshop/command',
      { command: 'spin-up' },
      400,
    ],
    [
      'a jog that is no number',
      'POST',
      '/api/benches/dome-workshop/command',
      { command: 'jog', x: 'far', y: 0, z: 0, feed: 1 },
      400,
    ],
    ['a bench that is none', 'POST', '/api/benches/shed/command', { command: 'hold' }, 404],
    [
      'a job at a bench it is not for',
      'POST',
      '/api/benches/pavilion/command',
      { command: 'connect', job: 'night-light' },
      409,
    ],
    ['a run of no revision', 'POST', '/api/jobs/entrance-board/runs', {}, 400],
    ['a note on a run that is none', 'PATCH', '/api/runs/999999', { note: 'x' }, 404],
    ['a bit with a negative diameter', 'PUT', '/api/bits/e6', { name: 'x', diameter: -1 }, 400],
  ];
  for (const [what, method, path, body, status] of refused)
    test(`${what}: refused with a sentence`, async ({ request }) => {
      const response = await request.fetch(address() + path.replace(/^\//, ''), {
        method,
        data: body,
        headers: { 'x-kerbe-page': 'doors', ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
        failOnStatusCode: false,
      });
      expect(response.status()).toBe(status);
      const text = await response.text();
      expect(text).not.toMatch(/at .*\.(ts|js):\d+/);
      const { problem, message } = JSON.parse(text) as { problem?: string; message?: string };
      expect(problem ?? message).toMatch(/\S.*[.!]?$/);
    });

  for (const odd of ['%00', 'x%2500y', '..%2f..%2fetc', 'a%27b', '%F0%9F%98%80', 'a'.repeat(3000), '%20'])
    test(`an odd job address is nothing that is here: ${odd.slice(0, 20)}`, async ({ request }) => {
      for (const path of [`jobs/${odd}`, `jobs/${odd}/cuts`, `jobs/${odd}/__data.json`, `api/jobs/${odd}`]) {
        const response = await request.get(address() + path, { failOnStatusCode: false, maxRedirects: 0 });
        expect([path.slice(0, 30), response.status()]).toEqual([path.slice(0, 30), 404]);
      }
    });

  test('text that is no JSON, and a body beyond all measure', async ({ request }) => {
    const broken = await request.post(`${address()}api/jobs`, {
      data: '{"name":',
      headers: { 'content-type': 'application/json' },
      failOnStatusCode: false,
    });
    expect(broken.status()).toBe(400);
    const huge = await request.post(`${address()}api/assets?name=huge.svg`, {
      data: Buffer.alloc(12_000_000, 32),
      headers: { 'content-type': 'application/octet-stream' },
      failOnStatusCode: false,
    });
    expect(huge.status()).toBeGreaterThanOrEqual(400);
    expect(huge.status()).toBeLessThan(500);
  });

  test('pages forbid scripts that are not theirs, and other sites may not write', async ({ request }) => {
    const page = await request.get(address());
    const policy = page.headers()['content-security-policy'];
    expect(policy).toContain("default-src 'none'");
    expect(policy).not.toMatch(/script-src[^;]*'unsafe-(inline|eval)'/);
    for (const origin of ['http://elsewhere.example', 'null']) {
      const foreign = await request.post(`${address()}api/jobs`, {
        data: { name: 'From elsewhere', unit: 'mm' },
        headers: { 'content-type': 'application/json', origin },
        failOnStatusCode: false,
      });
      expect(foreign.status()).toBe(403);
    }
  });
});
