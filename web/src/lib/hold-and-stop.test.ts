import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { type Answer, pressed, type PressTold, type Way } from './hold-and-stop.ts';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const listening = () => {
  const heard: string[] = [];
  const told: PressTold = {
    unanswered: (seconds) => heard.push(`unanswered after ${seconds}`),
    answered: (answer, seconds) => heard.push(`${answer.taken ? 'taken' : answer.why} after ${seconds}`),
  };
  return { heard, told };
};
const after =
  (milliseconds: number, answer: Answer): Way =>
  () =>
    new Promise((resolve) => setTimeout(() => resolve(answer), milliseconds));
const never: Way = () => new Promise(() => {});
const away: Way = () => Promise.reject(new Error('away'));

test('it goes over all ways at once, and the first answer counts', async () => {
  const { heard, told } = listening();
  const way = vi.fn(after(30, { taken: true }));
  const taken = pressed([never, way, away], told, 'p');
  await vi.advanceTimersByTimeAsync(100);
  expect(await taken).toBe(true);
  expect(heard).toEqual(['taken after 0.03']);
  expect(way).toHaveBeenCalledTimes(1);
  await vi.advanceTimersByTimeAsync(5000);
  expect(heard).toHaveLength(1);
});

test('without an answer it is sent again as the same press, and said in large words after one second', async () => {
  const { heard, told } = listening();
  const presses: string[] = [];
  let answers = false;
  const way: Way = (press) => {
    presses.push(press);
    return answers ? Promise.resolve({ taken: true }) : Promise.reject(new Error('away'));
  };
  const taken = pressed([way], told, 'p');
  await vi.advanceTimersByTimeAsync(999);
  expect(heard).toEqual([]);
  await vi.advanceTimersByTimeAsync(1);
  expect(heard).toEqual(['unanswered after 1']);
  await vi.advanceTimersByTimeAsync(2000);
  answers = true;
  await vi.advanceTimersByTimeAsync(400);
  expect(await taken).toBe(true);
  expect(heard.at(-1)).toMatch(/^taken after 3\.2/);
  expect(new Set(presses)).toEqual(new Set(['p']));
  expect(presses.length).toBeGreaterThan(6);
});

test('a way that hangs does not keep the others from being tried again', async () => {
  const { heard, told } = listening();
  let tried = 0;
  const way: Way = () => (++tried < 3 ? Promise.reject(new Error('away')) : Promise.resolve({ taken: true }));
  void pressed([never, way], told);
  await vi.advanceTimersByTimeAsync(900);
  expect(heard).toEqual(['taken after 0.8']);
});

test('what is refused is an answer, with its reason', async () => {
  const { heard, told } = listening();
  const taken = pressed([after(10, { taken: false, why: 'There is no link.' })], told);
  await vi.advanceTimersByTimeAsync(50);
  expect(await taken).toBe(false);
  expect(heard).toEqual(['There is no link. after 0.01']);
});
