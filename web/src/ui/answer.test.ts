import { expect, test, vi } from 'vitest';
import { Answer } from './answer.svelte';

const soon = () => {
  let tell: (value: string | Error) => void = () => undefined;
  const asked = new Promise<string>(
    (told, refuse) => (tell = (one) => (one instanceof Error ? refuse(one) : told(one))),
  );
  return { asked: Object.assign(asked, { cancel: vi.fn() }), tell: (one: string | Error) => tell(one) };
};

test('only the newest question counts, and the one before is cancelled', async () => {
  const answer = new Answer<string>();
  const [first, second] = [soon(), soon()];
  answer.ask(first.asked);
  answer.ask(second.asked);
  expect(first.asked.cancel).toHaveBeenCalledOnce();
  second.tell('new');
  await second.asked;
  first.tell('old');
  await first.asked;
  expect(answer.value).toBe('new');
});

test('the old value stays for the asking, and goes otherwise', async () => {
  const answer = new Answer<string>();
  answer.ask(Promise.resolve('one'));
  await Promise.resolve();
  await Promise.resolve();
  answer.ask(soon().asked, true);
  expect(answer.value).toBe('one');
  answer.ask(soon().asked);
  expect(answer.value).toBeNull();
});

test('what went wrong is kept until it is asked again; what is not waited for any more says nothing', async () => {
  const answer = new Answer<string>();
  const [first, second] = [soon(), soon()];
  answer.ask(first.asked);
  first.tell(new Error('away'));
  await first.asked.catch(() => undefined);
  expect(answer.trouble).toBe('away');
  const stop = answer.ask(second.asked);
  expect(answer.trouble).toBeNull();
  stop();
  second.tell(new Error('late'));
  await second.asked.catch(() => undefined);
  expect([answer.trouble, answer.value]).toEqual([null, null]);
});
