import { describe, expect, it } from 'vitest';
import { releaseSchema } from '../src/parts';
import {
  matchNews,
  type NewsPart,
  type Published,
  roleIn,
  symptomsIn,
  versionIn,
} from '../src/workshop';

const part = (over: Partial<NewsPart>): NewsPart => ({
  id: 'p',
  kind: 'dock',
  maker: 'Alder',
  model: 'D-4',
  variant: '',
  family: '',
  here: true,
  ...over,
});
const item = (over: Partial<Published>): Published => ({
  key: 'k',
  title: '',
  url: 'https://maker.example/n',
  text: '',
  publishedAt: '2026-11-18T09:00:00Z',
  stated: null,
  ...over,
});
const parts = [
  part({ id: 'd4' }),
  part({ id: 'd40', model: 'D-40', here: false }),
  part({ id: 'c', kind: 'card', maker: 'Birch', model: 'R-70', family: 'Bir IV' }),
];

describe('news', () => {
  it('knows parts by stated model or family of their kind', () => {
    const stated = {
      what: 'driver' as const,
      maker: 'Birch',
      model: 'Bir IV',
      version: 'r23',
      releasedOn: '',
      fixes: ['drops under load'],
    };
    const m = matchNews(item({ title: 'New', stated }), parts, [
      'drops under load',
      'black screen after sleep',
    ]);
    expect(m.touches).toEqual([{ id: 'c', name: 'Birch R-70', here: true, by: 'stated' }]);
    expect(m.symptoms).toEqual(['drops under load']);
    expect(m.draft).toMatchObject({
      what: 'driver',
      maker: 'Birch',
      model: 'Bir IV',
      variant: 'r23',
      releasedOn: '2026-11-18',
    });
    expect(releaseSchema.safeParse(m.draft).success).toBe(true);
  });

  it('knows whole part names in the text and drafts a release', () => {
    const m = matchNews(
      item({ title: 'Alder D-4: firmware 1.9.2', text: 'Mends crashes on plugging in.' }),
      parts,
      ['crash on plugging in', 'copy rate 14 Gb/s'],
    );
    expect(m.touches.map((t) => [t.id, t.by])).toEqual([['d4', 'name']]);
    expect(m.symptoms).toEqual(['crash on plugging in']);
    expect(m.draft).toMatchObject({ what: 'dockFirmware', variant: '1.9.2' });
  });

  it('says nothing where nothing can be told', () => {
    const m = matchNews(item({ title: 'Alder at the fair', text: 'Hall 2.' }), parts, [
      'drops under load',
    ]);
    expect(m).toEqual({ touches: [], symptoms: [], draft: null });
    expect(
      matchNews(item({ title: 'D-4 in new colours', text: 'From Alder.' }), parts, []).draft,
    ).toBeNull();
  });

  it.each([
    ['Driver r23', 'r23'],
    ['firmware v2.0.1 is out', '2.0.1'],
    ['D-4 dock firmware 1.9', '1.9'],
    ['Release 41.0.', '41.0'],
    ['build 26100.2', '26100.2'],
  ])('reads the version of "%s"', (text, version) => {
    expect(versionIn(text)).toBe(version);
  });

  it('tells software apart by the part it is for', () => {
    expect(roleIn('new firmware', 'dock')).toBe('dockFirmware');
    expect(roleIn('new firmware', 'card')).toBe('cardFirmware');
    expect(roleIn('driver and firmware', 'card')).toBe('driver');
    expect(roleIn('link controller firmware', 'host')).toBe('linkFirmware');
    expect(roleIn('a new colour', 'dock')).toBeNull();
    expect(symptomsIn('The card was lost once it was listed.', ['card listed, then lost'])).toEqual(
      ['card listed, then lost'],
    );
  });
});
