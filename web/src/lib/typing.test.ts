// @vitest-environment happy-dom
import { beforeEach, expect, test } from 'vitest';
import { Typing, undoesItself } from './typing.ts';

// Promised: what is typed and not taken is there again after a reload, in the same field and no other; what was taken is not.

let card: HTMLElement;
let typing: Typing;

/** The card as it is drawn anew, as after a reload. */
function drawn(job = 'j', stop = 'cuts'): void {
  document.body.innerHTML = `
    <div id="card">
      <label>Name <input type="text" id="name" value="Plate"></label>
      <input type="text" id="search" aria-label="Search" data-live>
      <input type="range" id="slider" aria-label="Slider">
      <div data-cut="a"><input type="text" id="a" aria-label="Depth" value="3"></div>
      <div data-cut="b"><input type="text" id="b" aria-label="Depth" value="4"><input type="text" id="b2" aria-label="Depth" value="5"></div>
      <textarea id="notes" aria-label="Notes"></textarea>
      <div data-own><input type="text" id="own" aria-label="Filter"></div>
    </div>`;
  card = document.querySelector('#card')!;
  typing = new Typing(card, job, stop);
}
const field = (id: string) => document.querySelector<HTMLInputElement>(`#${id}`)!;
function type(id: string, text: string): void {
  field(id).value = text;
  field(id).dispatchEvent(new Event('input', { bubbles: true }));
}
const tell = async (id: string, event: Event) => {
  field(id).dispatchEvent(event);
  await Promise.resolve();
};
const after = (job?: string, stop?: string) => {
  typing.end();
  drawn(job, stop);
  typing.restore();
  return Object.fromEntries(['name', 'search', 'a', 'b', 'b2', 'notes'].map((id) => [id, field(id).value]));
};
const asDrawn = { name: 'Plate', search: '', a: '3', b: '4', b2: '5', notes: '' };

beforeEach(() => {
  localStorage.clear();
  drawn();
});

test('letters that are not taken yet are in their own fields again, and the first has the focus', () => {
  type('b', '4.');
  type('b2', '5.5');
  type('notes', 'for the north wall');
  expect(after()).toEqual({ ...asDrawn, b: '4.', b2: '5.5', notes: 'for the north wall' });
  expect(document.activeElement?.id).toBe('b');
  // And once more, since they are still not taken.
  expect(after()).toMatchObject({ b: '4.', b2: '5.5' });
});

test('they belong to one job and one stop', () => {
  type('name', 'Pla');
  expect(after('other')).toEqual(asDrawn);
  expect(after('j', 'artwork')).toEqual(asDrawn);
  expect(after('j', 'cuts')).toEqual({ ...asDrawn, name: 'Pla' });
});

test.each([
  ['a change', new Event('change', { bubbles: true })],
  ['leaving', new Event('focusout', { bubbles: true })],
  ['Enter', new KeyboardEvent('keydown', { key: 'Enter', bubbles: true })],
  ['Escape', new KeyboardEvent('keydown', { key: 'Escape', bubbles: true })],
])('%s takes them, unless the number is wrong', async (_, event) => {
  type('a', '7');
  type('b', '9 apples');
  field('b').setAttribute('aria-invalid', 'true');
  await tell('a', event);
  await tell('b', event);
  expect([typing.holds(field('a')), typing.holds(field('b'))]).toEqual([false, true]);
  expect(after()).toEqual({ ...asDrawn, b: '9 apples' });
});

test('other keys take nothing', async () => {
  type('a', '7');
  await tell('a', new KeyboardEvent('keydown', { key: 'Tab', bubbles: true }));
  expect(typing.holds(field('a'))).toBe(true);
});

test('a wrong number is told only when whoever takes it has looked', async () => {
  type('a', 'x');
  field('a').addEventListener('change', () => field('a').setAttribute('aria-invalid', 'true'));
  await tell('a', new Event('change', { bubbles: true }));
  expect(typing.holds(field('a'))).toBe(true);
});

test('fields whose letters are taken at once, and what is no text, are left alone', () => {
  type('search', 'com');
  type('slider', '60');
  expect(localStorage.length).toBe(0);
  expect(typing.holds(field('search'))).toBe(false);
});

test('what is the same as in the field is not typed into it; nothing is listened to after the end', () => {
  type('a', '3');
  let told = 0;
  typing.end();
  drawn();
  card.addEventListener('input', () => told++);
  typing.restore();
  expect(told).toBe(0);
  typing.end();
  type('a', '8');
  expect(after()).toEqual(asDrawn);
});

test('a step back stays in a field that holds letters, and in those that are no part of the job', () => {
  expect(['a', 'own'].map((id) => undoesItself(field(id), typing))).toEqual([false, true]);
  type('a', '7');
  expect([undoesItself(field('a'), typing), undoesItself(field('a'), undefined)]).toEqual([true, false]);
  expect(undoesItself(null, typing)).toBe(false);
});

test('what is kept by half is as if nothing were', () => {
  type('a', '7');
  localStorage.setItem(localStorage.key(0)!, '{"a Dep');
  expect(after()).toEqual(asDrawn);
});
