import { type Chain, chainSchema } from '@ruddy/core/chain';
import {
  evidenceOfRuns,
  FACT_IDS,
  forecastTitle,
  type FrameTitle,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  pixelsOf,
  rigOf,
  type RunFacts,
  type RunSeen,
} from '@ruddy/core/runs';
import { FramesPanel } from './frames-panel';
import { PORT, shown, words } from './spec-help';

const named = { maker: 'Alder', model: 'X' };
const cable = (lengthMm: number) => ({
  ...named,
  connector: 'usb-c',
  construction: 'passive',
  lengthMm,
  markedGbps: 40,
});
const chain = (lengthMm = 700): Chain =>
  chainSchema.parse({
    host: { ...named, model: 'L', form: 'laptop', sockets: [PORT] },
    socket: 'left',
    path: [{ key: 'a', spec: cable(lengthMm) }],
    dock: {
      ...named,
      model: 'D',
      form: 'enclosure',
      connector: 'usb-c',
      uplink: 'usb4-40',
      slotGen: 3,
      slotLanes: 4,
    },
    card: { ...named, model: 'C', pcieGen: 4, lanes: 16 },
  });

/** Runs of a title of 10 MB a frame on this chain and in a slot, without scatter. */
function runs(): RunSeen[] {
  const facts = (more: object) =>
    ({ ...Object.fromEntries(FACT_IDS.map((f) => [f, ''])), ...more }) as unknown as RunFacts;
  return [false, true].flatMap((norm) =>
    ['1920x1080', '2560x1440', '3840x2160'].map((resolution): RunSeen => {
      const context = { ...NO_RUN_CONTEXT, norm, sameProcessor: 'yes' as const };
      const rig = rigOf(chain(), context);
      const ms = 6 * ((pixelsOf(resolution) ?? 0) / 2073600) ** 0.8 + 80 / (rig.down?.lo ?? 1);
      return {
        id: `${norm} ${resolution}`,
        setupId: 's',
        titleId: 't',
        title: 'Eel Ferry',
        kind: 'score',
        rig,
        context,
        settings: { ...NO_RUN_SETTINGS, resolution },
        facts: facts({ resolution }),
        stats: null,
        sensors: null,
        result: { value: 1000 / ms, unit: 'frames/s' },
        happenedAt: '2026-01-01T00:00:00Z',
      };
    }),
  );
}
const RUNS = runs();
/** A title as the server gives it. */
const title = (id: string, name: string, list: readonly RunSeen[]): FrameTitle => ({
  id,
  name,
  evidence: evidenceOfRuns(list).evidence,
  stated: null,
});
const forecasts = (c: Chain, titles: readonly FrameTitle[], sizes = ['2560x1440']) =>
  titles.flatMap((t) =>
    sizes.map((resolution) =>
      forecastTitle(
        rigOf(c),
        {
          title: t,
          resolution,
          picture: {
            pixels: pixelsOf(resolution) ?? 1,
            panel: false,
            capFps: null,
            powerMode: '',
            preset: '',
            rayTracing: false,
          },
        },
        false,
      ),
    ),
  );

describe('PL-21 frames on Plan', () => {
  const known = title('t', 'Eel Ferry', RUNS);
  const open = title('u', 'Unrun', []);

  it('say frames, band, link overhead and gaps', async () => {
    const { el } = await shown(FramesPanel, { forecasts: forecasts(chain(), [known, open]) });
    const text = words(el);
    // 6 ms at 1080p grow to 9.5 at 1440p; 80 / 26.0 is 3.1 ms: 12.6 ms, 79 frames/s.
    expect(text).toMatch(/Frames, 2560x1440.*Eel Ferry ?79\.\d \(7\d.* to 8\d/);
    expect(text).toMatch(/Link overhead 2\.[6-9] \(/);
    expect(text).toContain('1 more title cannot be predicted');
    expect(text).toContain('Unrun: needs a run or start values of the title');
    expect(text).toMatch(/Eel Ferry: measured\. Measured: /);
  });

  it('stand beside what they were during a preview', async () => {
    const sizes = ['1920x1080', '2560x1440'];
    const { el } = await shown(FramesPanel, {
      forecasts: forecasts(chain(1200), [known], sizes),
      before: forecasts(chain(), [known], sizes),
    });
    const text = words(el);
    expect(text).toMatch(/Eel Ferry, 1920x1080.*was 1\d\d.*Eel Ferry, 2560x1440.*was 79/);
  });

  it('say what to do where no title is known', async () => {
    const none = await shown(FramesPanel, { forecasts: [] });
    expect(words(none.el)).toContain('Measure one on Runs');
  });

  it('say that they are being computed', async () => {
    const waits = await shown(FramesPanel, { forecasts: [], waiting: true });
    expect(words(waits.el)).toContain('Computing what to expect');
  });
});
