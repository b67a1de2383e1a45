import { describe, expect, test } from 'vitest';
import { Turns } from './turns.ts';

/** Asks for turns in an order; returns in which they began, each ending when told. */
function desk(places: number, most = 100) {
  const turns = new Turns(places, most);
  const began: string[] = [];
  const ends = new Map<string, () => void>();
  const ask = (name: string, signal = new AbortController().signal) =>
    turns.take(name[0], signal, () => {
      began.push(name);
      return new Promise<void>((resolve) => ends.set(name, resolve));
    });
  const end = async (name: string) => {
    ends.get(name)!();
    await new Promise((resolve) => setTimeout(resolve, 0));
  };
  return { began, ask, end };
}
const settled = () => new Promise((resolve) => setTimeout(resolve, 0));

describe('turns', () => {
  test('a user who asks often leaves room for one who asks once', async () => {
    const { began, ask, end } = desk(2);
    for (const name of ['a1', 'a2', 'a3', 'b1']) void ask(name);
    await settled();
    expect(began).toEqual(['a1', 'b1']);
    await end('b1');
    expect(began).toEqual(['a1', 'b1']);
    await end('a1');
    expect(began).toEqual(['a1', 'b1', 'a2']);
  });
  test('between users in a circle, whoever has more waiting', async () => {
    const { began, ask, end } = desk(1);
    for (const name of ['a1', 'a2', 'a3', 'b1', 'c1']) void ask(name);
    await settled();
    for (let k = 0; k < 4; k++) await end(began.at(-1)!);
    expect(began).toEqual(['a1', 'b1', 'c1', 'a2', 'a3']);
  });
  test('who goes away while waiting is forgotten, and one who fails makes room', async () => {
    const { began, ask, end } = desk(1);
    void ask('a1');
    const away = new AbortController();
    const gone = ask('b1', away.signal);
    void ask('c1');
    away.abort(new Error('gone'));
    await expect(gone).rejects.toThrow('gone');
    await end('a1');
    expect(began).toEqual(['a1', 'c1']);
  });
  test('more than may wait are refused at once', async () => {
    const { ask } = desk(1, 2);
    void ask('a1');
    await settled();
    void ask('a2');
    void ask('a3');
    await expect(ask('b1')).rejects.toThrow(RangeError);
  });
});
