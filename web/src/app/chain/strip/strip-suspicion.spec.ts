import { TestBed } from '@angular/core/testing';
import { evaluate } from '@ruddy/core/plan';
import { chainOf } from '../../plan/spec-help';
import { BridgeStrip } from './bridge-strip';
import { stripModel } from './strip-model';
import { withPosterior } from './strip-suspicion';
import { copyLine, stripList } from './strip-text';

describe('the strip of a search', () => {
  it('TR-03 on Troubleshoot the strip carries suspicions that add to 100', async () => {
    const chain = chainOf();
    const places = {
      system: 0.05,
      port: 0.104,
      cable: 0.523,
      dock: 0.17,
      card: 0.08,
      screen: 0.003,
      elsewhere: 0.07,
    };
    const m = withPosterior(
      stripModel(
        'Dome desk',
        chain,
        evaluate({ chain, context: { asOf: '2026-11-20', house: {} } }),
      ),
      {
        places,
        cause: 'the cable is too long',
      },
    );
    expect(m.suspicion).toEqual({
      piers: { system: 5, port: 11, cable: 52, dock: 17, card: 8, screen: 0 },
      elsewhere: 7,
      most: 'cable',
      cause: 'the cable is too long',
    });
    expect(m.pinchLine).toBe(
      'Most suspect: cable, 52 %; dock 17 %, host port 11 %, card 8 %, elsewhere 7 %, system 5 %. Likeliest cause: the cable is too long.',
    );
    const text = stripList(m);
    expect(text.filter((l) => /Suspicion \d+ %\.$/.test(l))).toHaveLength(6);
    expect(text.at(-1)).toBe('Elsewhere: suspicion 7 %.');
    const fixture = TestBed.createComponent(BridgeStrip);
    fixture.componentRef.setInput('model', m);
    await fixture.whenStable();
    const svg = (fixture.nativeElement as HTMLElement).querySelector('svg')!;
    // One disc for each ten: 1 for the system, 1 at the port, 5 at the cable, 2 at the dock, 1 at the card.
    expect(svg.querySelectorAll('.disc')).toHaveLength(10);
    for (const words of ['52 %', '17 %', 'elsewhere 7 %', 'most suspect', 'the cable is too long'])
      expect(svg.textContent).toContain(words);
    expect(copyLine(m)).toContain('; Most suspect: cable, 52 %');
  });
});
