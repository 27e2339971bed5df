import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RuleBook } from '@ruddy/core/base';
import type { HealthPoint } from '@ruddy/core/bring-up';
import { MEASURE_WORDS, measureText, trendText } from '@ruddy/core/bring-up/text';
import { LinkHealth } from './link-health';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { day } from '../platform/shared/format';
import { toCsv } from '../platform/kit/csv';
import { download } from '../platform/shared/download';
import { HealthChart } from './health-chart';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const share = (v: number | null) => (v === null ? '–' : `${Math.round(v * 100)} %`);
const figure = (v: number | null) => (v === null ? '–' : String(Math.round(v)));

/** The link over time: readings compared across days and across cables, with trends told apart from chance. */
@Component({
  selector: 'rb-health-view',
  imports: [Cell, Rows, Fold, HealthChart, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './health-view.html',
  styles: `
    section.sheet {
      padding: 12px;
      margin-bottom: 16px;
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 8px;
    }
    ul {
      list-style: none;
      display: grid;
      gap: 4px;
    }
    rb-health-chart {
      max-width: 720px;
    }
    li {
      border-left: 4px solid var(--stone);
      padding: 2px 8px;
    }
    li.falls,
    li.rises {
      border-left-color: var(--ochre);
    }
  `,
})
export class HealthView {
  readonly healthViewColumns: readonly ShortColumn[] = [
    { key: 'cable', name: 'Cable' },
    { key: 'readings', name: 'Readings', figure: true },
    { key: 'toTheCard', name: 'To the card', figure: true },
    { key: 'back', name: 'Back', figure: true },
    { key: 'correctedAnHour', name: 'Corrected an hour', figure: true },
    { key: 'notMended', name: 'Not mended', figure: true },
    { key: 'timesDown', name: 'Times down', figure: true },
    { key: 'minutesLoaded', name: 'Minutes loaded', figure: true },
    { key: 'fromTo', name: 'From, to' },
  ];
  readonly healthViewColumns2: readonly ShortColumn[] = [
    { key: 'day', name: 'Day' },
    { key: 'cable', name: 'Cable' },
    { key: 'toTheCard', name: 'To the card', figure: true },
    { key: 'back', name: 'Back', figure: true },
    { key: 'routerALane', name: 'Router, a lane' },
    { key: 'slot', name: 'Slot' },
    { key: 'correctedAnHour', name: 'Corrected an hour', figure: true },
    { key: 'timesDown', name: 'Times down', figure: true },
    { key: 'windowMb', name: 'Window, MB', figure: true },
    { key: 'graded', name: 'Graded' },
  ];
  readonly health = inject(LinkHealth);
  readonly #readings = inject(LinkReadings);
  readonly #editor = inject(SetupEditor);
  readonly share = share;
  readonly figure = figure;
  readonly day = day;
  readonly names = MEASURE_WORDS;
  readonly words = trendText;
  readonly healthyPercent = computed(() =>
    new RuleBook(this.#readings.house()).get('grade.healthyPercent'),
  );
  readonly moved = computed(() =>
    this.health.trends().filter((t) => t.way === 'rises' || t.way === 'falls'),
  );
  readonly still = computed(() =>
    this.health.trends().filter((t) => t.way !== 'rises' && t.way !== 'falls'),
  );
  readonly rows = computed(() => [...this.health.points()].reverse());

  value(p: HealthPoint): string {
    return (
      [p.lanes === null ? '' : `×${p.lanes}`, p.gen === null ? '' : `Gen${p.gen}`]
        .filter((s) => s !== '')
        .join(' ') || '–'
    );
  }

  router(p: HealthPoint): string {
    return p.routerGbps === null ? '–' : measureText('routerGbps', p.routerGbps);
  }

  async csv(): Promise<void> {
    const name = (this.#editor.fields()?.name ?? 'setup').replace(/[^A-Za-z0-9]+/g, '-');
    const keys = [
      'at',
      'cable',
      'down',
      'up',
      'routerGbps',
      'lanes',
      'gen',
      'correctedPerHour',
      'fatal',
      'downs',
      'windowMB',
      'minutes',
      'overall',
    ] as const;
    const text = await toCsv(
      keys,
      this.rows().map((p) => keys.map((k) => p[k])),
    );
    download(`${name}-link-health.csv`, 'text/csv', text);
  }
}
