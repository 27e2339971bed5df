import { type Chain, chainSchema } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import {
  type Asked,
  calibrate,
  cellsOf,
  FACT_IDS,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  pixelsOf,
  rigOf,
  type RunFacts,
  type RunSeen,
  type TitleModel,
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
const asked = (pixels: number): Asked => ({
  pixels,
  panel: false,
  capFps: null,
  powerMode: '',
  preset: '',
  rayTracing: false,
  look: null,
});
const judge = (c: Chain, models: readonly TitleModel[], sizes = ['2560x1440']) =>
  evaluate({
    chain: c,
    context: {
      asOf: '2026-11-20',
      house: {},
      frames: models.flatMap((model) =>
        sizes.map((resolution) => ({ model, resolution, asked: asked(pixelsOf(resolution) ?? 1) })),
      ),
    },
  });

describe('PL-21 frames on Plan', () => {
  const fit = calibrate(cellsOf(runs()));
  const known: TitleModel = { id: 't', name: 'Eel Ferry', params: null, fit };
  const open: TitleModel = { id: 'u', name: 'Unrun', params: null, fit: null };

  it('say frames, band, link overhead, longest stage and gaps', async () => {
    expect(fit?.refused).toBeNull();
    const { el } = await shown(FramesPanel, { evaluation: judge(chain(), [known, open]) });
    const text = words(el);
    // 6 ms at 1080p grow to 9.5 at 1440p; 80 / 26.0 is 3.1 ms: 12.6 ms.
    expect(text).toMatch(/Frames, 2560x1440 ?Eel Ferry ?79\.\d ±\d/);
    expect(text).toMatch(/link overhead 3\.1 ms, card 9\.5 ms/);
    expect(text).toContain('1 more title cannot be predicted');
    expect(text).toContain('Unrun: needs a calibration or start values of the title');
    expect(text).toMatch(/from runs on this host and card; measured: .*traffic/);
  });

  it('stand beside what they were during a preview', async () => {
    const sizes = ['1920x1080', '2560x1440'];
    const { el } = await shown(FramesPanel, {
      evaluation: judge(chain(1200), [known], sizes),
      before: judge(chain(), [known], sizes),
    });
    const text = words(el);
    expect(text).toMatch(/Eel Ferry, 1920x1080.*was 1\d\d.*Eel Ferry, 2560x1440.*was 79/);
  });

  it('say what to do where no title is known', async () => {
    const { el } = await shown(FramesPanel, { evaluation: judge(chain(), []) });
    expect(words(el)).toContain('Measure one on Runs and calibrate it');
  });
});
