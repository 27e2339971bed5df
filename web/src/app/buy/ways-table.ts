import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { SpendingOption, WayRow } from '@ruddy/core/buy';
import { moneyShort } from '@ruddy/core/buy/text';

/** Ways to spend the money side by side: net, frames with their band, what is gained and what each frame gained costs. */
@Component({
  selector: 'rb-ways-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="wide"
      tabindex="0"
      role="region"
      [attr.aria-label]="kinds().set + ' and the other ways'"
    >
      <table class="list">
        <thead>
          <tr>
            <th scope="col">Way</th>
            <th scope="col" class="figure">Net</th>
            <th scope="col" class="figure">Frames/s</th>
            <th scope="col" class="figure">Gained</th>
            <th scope="col" class="figure">Each frame gained</th>
          </tr>
        </thead>
        <tbody>
          @for (r of rows(); track r.kind + r.name) {
            <tr [class.here]="r.kind === 'set'">
              <th scope="row">{{ kinds()[r.kind] }}{{ r.name ? ' ' + r.name : '' }}</th>
              <td class="figure">{{ cash(r.netMinor) }}</td>
              <td class="figure">{{ frames(r) }}</td>
              <td class="figure">{{ r.gainFps === null ? '–' : round(r.gainFps) }}</td>
              <td class="figure">
                {{ r.perFrameMinor === null ? '–' : cash(round(r.perFrameMinor)) }}
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styles: `
    th[scope='row'] {
      text-align: left;
      font-weight: 400;
    }
    tr.here {
      background: var(--select);
    }
  `,
})
export class WaysTable {
  readonly rows = input.required<readonly WayRow[]>();
  readonly kinds = input.required<Readonly<Record<SpendingOption['kind'], string>>>();
  readonly currency = input.required<string>();
  readonly round = Math.round;

  cash(minor: number | null): string {
    return minor === null ? 'not known' : moneyShort({ minor, currency: this.currency() });
  }
  frames(r: WayRow): string {
    return r.fps
      ? `${Math.round(r.fps.mid)} (${Math.round(r.fps.lo)} to ${Math.round(r.fps.hi)})`
      : 'not told';
  }
}
