import { describe, expect, it } from 'vitest';
import { countedIn, forgottenItems } from '../src/buy';
import { chainSchema } from '../src/chain';
import { NO_COST } from '../src/setups';
import { card, dock, host, screen } from './make';

const EMPTY = chainSchema.parse({ host: null, socket: null, path: [], dock: null, card: null });

describe('PL-19 counted in another currency', () => {
  it('figures stay as they were said, whatever digits the currency has', () => {
    const said = {
      ...NO_COST,
      budgetMinor: 190_000,
      discountPercent: 5,
      forgotten: { screen: { have: true, minor: null }, input: { have: false, minor: 2550 } },
      sells: [{ what: 'old card', minor: 9000 }],
    };
    const yen = countedIn(said, 'JPY');
    expect(yen).toEqual({
      ...said,
      currency: 'JPY',
      budgetMinor: 1900,
      forgotten: { screen: { have: true, minor: null }, input: { have: false, minor: 26 } },
      sells: [{ what: 'old card', minor: 90 }],
    });
    expect(countedIn(yen, 'KWD').budgetMinor).toBe(1_900_000);
    expect(countedIn(said, 'EUR')).toEqual(said);
  });
});

// Common practice, no published source: what is ordered a week later.
describe('PL-19 forgotten items', () => {
  const mini = chainSchema.parse({
    ...EMPTY,
    host: { ...host(), form: 'mini-pc' },
    path: null,
    dock: { ...dock(), supply: 'separate' },
    card: card(),
  });

  it('names what no part of the chain stands for', () => {
    expect(forgottenItems(mini)).toEqual(['cable', 'supply', 'screen', 'input']);
  });

  it("a screen wants a cable, a laptop's own panel a dummy plug", () => {
    const shown = chainSchema.parse({
      ...mini,
      path: [],
      picture: [{ key: 'a', by: 'card', plug: 'hdmi', screen: screen() }],
    });
    expect(forgottenItems(shown)).toContain('display-cable');
    const laptop = chainSchema.parse({
      ...EMPTY,
      host: { ...host(), form: 'laptop' },
      settings: { ...EMPTY.settings, toPanel: 'yes' },
    });
    expect(forgottenItems(laptop)).toEqual(['dummy-plug']);
  });
});
