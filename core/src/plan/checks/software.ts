import type { RequirementStatus } from '../../chain';
import type { Check, FindingDraft } from '../types';
import type { Param } from '../finding';
import { certainIf } from './certainty';

const FIRMWARE: readonly string[] = [
  'dockFirmware',
  'hostFirmware',
  'linkFirmware',
  'cardFirmware',
];

/**
 * The code of a requirement that is not met. What a version would mend never stops a plan while the version is not known: it can
 * still be installed. Once it is known to be the wrong one, what its author says counts.
 */
function codeOf(h: RequirementStatus): FindingDraft['code'] {
  const { severity, needs } = h.requirement;
  if (needs === 'heed') return 'software/heed';
  const mendable = h.role !== null || needs === 'repackaged';
  if (severity === 'blocks' && (h.state === 'unmet' || !mendable)) return 'software/refused';
  const firmware = h.role !== null && FIRMWARE.includes(h.role);
  if (firmware && severity !== 'note') return 'software/firmware-first';
  return severity === 'note' ? 'software/heed' : 'software/unmet';
}

/** Requirements that are not met, or of which it is not known. Each says who asks for what, since when, and what is seen then. */
export const requirements: Check<'held'> = {
  id: 'requirements',
  codes: ['software/refused', 'software/unmet', 'software/heed', 'software/firmware-first'],
  reads: ['held'],
  run({ held }) {
    return held.flatMap((h): FindingDraft[] => {
      if (h.state === 'met') return [];
      const r = h.requirement;
      const params: Record<string, Param> = {
        title: r.variant,
        who:
          r.maker === 'any'
            ? r.model === 'any'
              ? `every ${r.subject}`
              : r.model
            : `${r.maker} ${r.model}`,
        needs: r.needs,
        atLeast: r.atLeast,
        atMost: r.atMost,
        have: h.have,
        effect: r.effect,
        since: r.fromOn,
        source: r.source,
        statedOn: r.statedOn,
        to: h.by?.variant ?? '',
        whereFrom: h.by?.whereFrom ?? '',
        workaround: r.workaround,
        workaroundState: h.workaround ?? 'none',
        workaroundFrom: r.workaroundFrom,
        workaroundUntil: r.workaroundUntil,
      };
      return [
        {
          code: codeOf(h),
          slots: [
            r.subject === 'adapter' ? 'path' : r.subject,
            ...(h.role ? (['installed'] as const) : []),
          ],
          about: `${h.index}`,
          certainty: h.state === 'unmet' || r.needs === 'heed' ? 'certain' : 'possible',
          hangsOn: h.hangsOn,
          params,
          source: 'requirement',
        },
      ];
    });
  },
};

/** What the known releases say of the versions installed. */
export const releases: Check<'news'> = {
  id: 'releases',
  codes: ['software/withdrawn', 'software/newer'],
  reads: ['news'],
  run({ news }) {
    return news.flatMap((n): FindingDraft[] => {
      const common = {
        slots: ['installed' as const],
        about: n.role,
        source: 'requirement' as const,
      };
      const gone: FindingDraft[] = n.withdrawn
        ? [
            {
              ...common,
              code: 'software/withdrawn',
              params: {
                what: n.role,
                have: n.have,
                on: n.withdrawn.withdrawnOn,
                to: n.newer?.variant ?? '',
              },
            },
          ]
        : [];
      const params = n.newer && {
        what: n.role,
        have: n.have,
        to: n.newer.variant,
        fixes: n.newer.fixes,
        whereFrom: n.newer.whereFrom,
      };
      return params ? [...gone, { ...common, code: 'software/newer', params }] : gone;
    });
  },
};

/** Levels at which the firmware lets no PCIe through a tunnel. */
const SHUT = ['dponly', 'usbonly', 'nopcie'];

/** The system, the driver, the approval, and what confuses programs. */
export const system: Check<'system' | 'settings' | 'host' | 'uses' | 'port' | 'card' | 'box'> = {
  id: 'system',
  codes: [
    'software/no-outside',
    'software/security',
    'software/approval',
    'software/repackaged',
    'software/driver-class',
    'software/many-chips',
  ],
  reads: ['system', 'settings', 'host', 'uses', 'port', 'card', 'box'],
  run({ system: s, settings, host, uses, port, box }) {
    const found: FindingDraft[] = [];
    const say = (
      code: FindingDraft['code'],
      slots: FindingDraft['slots'],
      params: FindingDraft['params'] = {},
      source: FindingDraft['source'] = 'common-practice',
    ) => found.push({ code, slots, params, source });
    const tunnel = port?.connector === 'usb-c' || port?.connector === 'mini-dp';
    if (s && s.outsideCards !== 'yes')
      found.push({
        code: 'software/no-outside',
        slots: ['system'],
        params: { system: s.model },
        source: 'common-practice',
        ...certainIf(s.outsideCards === 'no', ['system/outsideCards']),
      });
    const level = settings.securityLevel;
    if (tunnel && typeof level === 'string' && SHUT.includes(level))
      say('software/security', ['settings'], { level }, 'kernel-abi');
    if (
      tunnel &&
      box &&
      level !== 'none' &&
      (settings.approval === 'none' || settings.approval === 'once')
    )
      say('software/approval', ['settings'], { approval: settings.approval });
    if (settings.driverKind === 'repackaged') say('software/repackaged', ['settings', 'card']);
    if (uses.some((u) => u.work === 'cad') && settings.driverClass === 'consumer')
      say('software/driver-class', ['settings', 'uses']);
    if (host?.graphics === 'both' && settings.internalGraphics !== 'off')
      say('software/many-chips', ['host']);
    return found;
  },
};
