import { shown } from '../../plan/spec-help';
import { optionsOf } from '../kit/meta';
import { Choice } from './choice';

const options = optionsOf({ a: 'First', b: 'Second' });
const pressed = (el: HTMLElement) =>
  [...el.querySelectorAll('button')].map((b) => b.getAttribute('aria-pressed'));

describe('a choice as buttons', () => {
  it('says what is chosen, and pressing it again empties it', async () => {
    const { el, component } = await shown(Choice, { label: 'Way', options, value: 'a' });
    expect(el.querySelector('[role=group]')?.getAttribute('aria-label')).toBe('Way');
    expect(pressed(el)).toEqual(['true', 'false']);
    const said: (string | null)[] = [];
    component.chosen.subscribe((v) => said.push(v));
    el.querySelectorAll('button').forEach((b) => b.click());
    expect(said).toEqual([null, 'b']);
  });

  it('one that must be chosen stays', async () => {
    const { el, component } = await shown(Choice, {
      label: 'Way',
      options,
      value: 'a',
      clearable: false,
    });
    const said: (string | null)[] = [];
    component.chosen.subscribe((v) => said.push(v));
    el.querySelector('button')?.click();
    expect(said).toEqual([]);
  });

  it('of several each is given out as pressed', async () => {
    const { el, component } = await shown(Choice, { label: 'Wrong', options, value: ['b'] });
    expect(pressed(el)).toEqual(['false', 'true']);
    const said: (string | null)[] = [];
    component.chosen.subscribe((v) => said.push(v));
    el.querySelectorAll('button').forEach((b) => b.click());
    expect(said).toEqual(['a', 'b']);
  });
});
