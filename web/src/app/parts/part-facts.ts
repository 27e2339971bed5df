import type { Range } from '@ruddy/core/base';
import {
  attributesOf,
  carriesTunnel,
  PART_SCHEMAS,
  type PartKind,
  SOFTWARE_NAMES,
} from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import type * as z from 'zod';

export const KIND_WORDS: Record<PartKind, { one: string; many: string }> = {
  host: { one: 'host', many: 'hosts' },
  cable: { one: 'cable', many: 'cables' },
  adapter: { one: 'adapter', many: 'adapters' },
  dock: { one: 'dock', many: 'docks' },
  card: { one: 'card', many: 'cards' },
  supply: { one: 'supply', many: 'supplies' },
  screen: { one: 'screen', many: 'screens' },
  system: { one: 'system', many: 'systems' },
  release: { one: 'release', many: 'releases' },
  requirement: { one: 'requirement', many: 'requirements' },
  laptop: { one: 'laptop', many: 'laptops' },
  desktop: { one: 'desktop', many: 'desktops' },
};

/** A number as stored, in words: "4", "2 to 4", "not known". */
export function numText(n: number | Range | null): string {
  return n === null ? 'not known' : typeof n === 'number' ? String(n) : `${n.lo} to ${n.hi}`;
}

function choiceText(kind: PartKind, key: string, value: unknown): string {
  if (value === null) return 'not known';
  const meta = attributesOf(PART_SCHEMAS[kind] as z.ZodObject).find(([k]) => k === key)?.[1];
  const label = (v: string) => meta?.options?.find((o) => o.value === v)?.label ?? v;
  return typeof value === 'string'
    ? label(value)
    : (value as { oneOf: string[] }).oneOf.map(label).join(' or ');
}

/** What a list says of a part in one line. */
export function facts(p: Part): string {
  switch (p.kind) {
    case 'host':
      return `${choiceText('host', 'form', p.spec.form)}, ${p.spec.sockets.length} ${p.spec.sockets.length === 1 ? 'port' : 'ports'}`;
    case 'cable': {
      const what =
        p.spec.connector === 'mini-dp'
          ? 'Thunderbolt 1 or 2'
          : p.spec.connector === 'usb-c'
            ? `marked ${numText(p.spec.markedGbps)} Gb/s`
            : `good to Gen ${numText(p.spec.pcieGen)}`;
      return `${choiceText('cable', 'construction', p.spec.construction)}, ${numText(p.spec.lengthMm)} mm, ${what}`;
    }
    case 'adapter': {
      const ends = `${choiceText('adapter', 'hostEnd', p.spec.hostEnd)} to ${choiceText('adapter', 'farEnd', p.spec.farEnd)}`;
      return carriesTunnel(p.spec.hostEnd)
        ? ends
        : `${ends}, good to Gen ${numText(p.spec.pcieGen)} ×${numText(p.spec.lanes)}`;
    }
    case 'dock':
      return `${choiceText('dock', 'uplink', p.spec.uplink)}, slot Gen ${numText(p.spec.slotGen)} ×${numText(p.spec.slotLanes)}`;
    case 'card':
      return `Gen ${numText(p.spec.pcieGen)} ×${numText(p.spec.lanes)}, ${numText(p.spec.memoryGB)} GB, ${numText(p.spec.boardW)} W`;
    case 'supply': {
      const [one, two, wide] = [p.spec.cables8Pin, p.spec.cables8PinPair, p.spec.cables16Pin].map(
        (n) => (typeof n === 'number' ? n : 0),
      );
      const cables = [one && `${one} 8-pin`, two && `${two} two-headed`, wide && `${wide} 16-pin`]
        .filter((s) => s)
        .join(', ');
      return `${choiceText('supply', 'form', p.spec.form)}, ${numText(p.spec.supplyW)} W${cables ? `, ${cables}` : ''}`;
    }
    case 'screen':
      return `${numText(p.spec.widthPx)}×${numText(p.spec.heightPx)} at ${numText(p.spec.hz)} Hz`;
    case 'system':
      return `${choiceText('system', 'family', p.spec.family)}, outside cards: ${choiceText('system', 'outsideCards', p.spec.outsideCards).toLowerCase()}`;
    case 'release':
      return `${SOFTWARE_NAMES[p.spec.what]}${p.spec.releasedOn ? `, ${p.spec.releasedOn}` : ''}${p.spec.withdrawnOn ? ', withdrawn' : ''}`;
    case 'requirement':
      return `${choiceText('requirement', 'severity', p.spec.severity)}: ${p.spec.effect}`;
    case 'laptop':
    case 'desktop':
      return `processor ${numText(p.spec.singleThread)}, graphics ${numText(p.spec.frameIndex)} of 100, ${numText(p.spec.memoryGB)} GB`;
  }
}
