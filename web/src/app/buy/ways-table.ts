import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { SpendingOption, WayRow } from '@ruddy/core/buy';
import { moneyShort } from '@ruddy/core/buy/text';
import type { Column } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';

/** Ways to spend the money side by side: net, frames with their band, what is gained and what each frame gained costs. */
@Component({
  selector: 'rb-ways-table',
  imports: [Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-rows
      [label]="kinds().set + ' and the other ways'"
      [columns]="columns()"
      [rows]="rows()"
      [marked]="isSet"
    />
  `,
})
export class WaysTable {
  readonly rows = input.required<readonly WayRow[]>();
  readonly kinds = input.required<Readonly<Record<SpendingOption['kind'], string>>>();
  readonly currency = input.required<string>();
  readonly isSet = (r: WayRow) => r.kind === 'set';
  readonly columns = computed<readonly Column<WayRow>[]>(() => [
    {
      key: 'way',
      name: 'Option',
      text: (r) => `${this.kinds()[r.kind]}${r.name ? ` ${r.name}` : ''}`,
    },
    { key: 'net', name: 'Net cost', figure: true, text: (r) => this.cash(r.netMinor) },
    { key: 'fps', name: 'Frames/s', figure: true, text: (r) => this.frames(r) },
    {
      key: 'gain',
      name: 'Gained',
      figure: true,
      text: (r) => (r.gainFps === null ? '–' : String(Math.round(r.gainFps))),
    },
    {
      key: 'each',
      name: 'Cost per frame gained',
      figure: true,
      text: (r) => (r.perFrameMinor === null ? '–' : this.cash(Math.round(r.perFrameMinor))),
    },
  ]);

  cash(minor: number | null): string {
    return minor === null ? 'not known' : moneyShort({ minor, currency: this.currency() });
  }
  frames(r: WayRow): string {
    return r.fps
      ? `${Math.round(r.fps.mid)} (${Math.round(r.fps.lo)} to ${Math.round(r.fps.hi)})`
      : 'not predicted';
  }
}
