import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import { hangsOn, plugMismatch, completions as allWorlds } from '../src/chain';
import { directChain, tunnelChain } from './make';

const worlds = (c: Parameters<typeof allWorlds>[0]) => allWorlds(c, new RuleBook({}));
const made = (c: Parameters<typeof worlds>[0]) => worlds(c).map((w) => w.made);

describe('worlds of the choices not known', () => {
  it('a chain with every choice made has one', () => {
    expect(worlds(tunnelChain())).toHaveLength(1);
    expect(worlds(directChain())).toHaveLength(1);
  });

  it('an unknown standard opens tunnelling, not what settles it', () => {
    const all = made(tunnelChain({ socket: { standard: null, tunnelling: null } }));
    const pairs = [
      ...new Set(
        all.map((m) => `${m['host/sockets/left/standard']} ${m['host/sockets/left/tunnelling']}`),
      ),
    ];
    expect(pairs).toEqual([
      'usb-c no',
      'thunderbolt-3 yes',
      'usb4-20 yes',
      'usb4-20 no',
      'usb4-40 yes',
      'usb4-40 no',
      'thunderbolt-4 yes',
      'usb4-80 yes',
      'usb4-80 no',
      'thunderbolt-5 yes',
    ]);
  });

  it('a port known to tunnel is not a plain one', () => {
    const all = made(tunnelChain({ socket: { standard: null, tunnelling: 'yes' } }));
    expect(new Set(all.map((m) => m['host/sockets/left/standard']))).toEqual(
      new Set(['thunderbolt-3', 'usb4-20', 'usb4-40', 'thunderbolt-4', 'usb4-80', 'thunderbolt-5']),
    );
  });

  it('stay under 200, whatever is unknown', () => {
    const blank = tunnelChain({
      socket: { standard: null, tunnelling: null, controller: null, pcieGen: null, lanes: null },
      cable: { construction: null, lengthMm: null, markedGbps: null },
      dock: { uplink: null, slotGen: null, slotLanes: null },
    });
    expect(worlds(blank).length).toBeLessThan(200);
  });

  it('the controller is a question only while the width behind it is', () => {
    expect(worlds(tunnelChain({ socket: { controller: null } }))).toHaveLength(1);
    expect(worlds(tunnelChain({ socket: { controller: null, lanes: null } }))).toHaveLength(2);
  });

  it('a statement depends on the choices that turn it only', () => {
    const all = worlds(tunnelChain({ socket: { tunnelling: null }, dock: { uplink: null } }));
    expect(
      hangsOn(
        all,
        all.map((w) => w.facts.socket?.tunnels === true),
      ),
    ).toEqual(['host/sockets/left/tunnelling']);
    expect(
      hangsOn(
        all,
        all.map((w) => w.facts.dock?.uplink === 'usb4-20'),
      ),
    ).toEqual(['dock/uplink']);
    expect(
      hangsOn(
        all,
        all.map(() => true),
      ),
    ).toEqual([]);
  });
});

describe('plugs along the path', () => {
  const facts = (c: Parameters<typeof worlds>[0]) => worlds(c)[0]!.facts;

  it('fit from end to end', () => {
    expect(plugMismatch(facts(tunnelChain()))).toBeNull();
    expect(plugMismatch(facts(directChain()))).toBeNull();
  });

  it('name the first two neighbours that do not', () => {
    const mixed = { ...tunnelChain(), dock: directChain().dock };
    expect(plugMismatch(facts(mixed))).toMatchObject({ a: { slot: 'path' }, b: { slot: 'dock' } });
    expect(plugMismatch(facts({ ...mixed, path: [] }))).toMatchObject({
      a: { slot: 'socket' },
      b: { slot: 'dock' },
    });
  });
});
