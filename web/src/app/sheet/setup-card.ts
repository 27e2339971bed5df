import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { formatWhole, rate } from '@ruddy/core/base/text';
import { sinceGood } from '@ruddy/core/bring-up';
import { ORDER_WORDS, sinceWords } from '@ruddy/core/bring-up/text';
import { chainNames, portName } from '@ruddy/core/chain';
import { attributesOf, settingsSchema } from '@ruddy/core/parts';
import { couplingWords, installedWords, profileWords, programWords } from '@ruddy/core/setups/text';
import { BringUpRun } from '../bring-up/bring-up-run';
import { SetupEditor } from '../setups/setup-editor';
import { day } from '../platform/shared/format';

const LABELS = new Map(attributesOf(settingsSchema));

/** The card that lies beside a setup: what it is, how it comes up, what it must show, under which versions it was good. */
@Component({
  selector: 'rb-setup-card',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="card">
      <dl>
        @for (r of rows(); track r.what) {
          <dt>{{ r.what }}</dt>
          <dd>{{ r.words }}</dd>
        }
      </dl>
      <p class="dark">
        <b>Screen dark?</b> Wait three minutes. Host off by its power button as its maker says. Dock
        off, mains out, cable out. Start undocked.
      </p>
      <p class="dark">
        <b>Mains out and everything off</b> before a lid is opened. The maker's manual has the last
        word.
      </p>
    </div>
  `,
  styles: `
    .card {
      border: 2px solid var(--ink);
      padding: 12px;
      max-width: 720px;
      break-inside: avoid;
    }
    dl {
      display: grid;
      grid-template-columns: max-content minmax(0, 1fr);
      gap: 2px 16px;
    }
    dt {
      color: var(--ink2);
    }
    .dark {
      border-top: 1px solid var(--line);
      margin-top: 8px;
      padding-top: 8px;
    }
    @media (max-width: 719px) {
      dl {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class SetupCard {
  readonly #editor = inject(SetupEditor);
  readonly #run = inject(BringUpRun);
  readonly rows = computed(() => {
    const j = this.#editor.judgement();
    const f = this.#editor.fields();
    const up = this.#run.stored();
    if (!j || !f) return [];
    const names = chainNames(j.chain);
    const port = j.chain.host?.sockets.find((s) => s.key === j.chain.socket);
    const { gen, lanes, copy, healthyFrom } = j.evaluation.predicted.link.readouts;
    const passed = [...(up?.attempts ?? [])].reverse().find((a) => a.ended?.worked === true);
    const good = up?.good ?? null;
    const changed = good ? sinceGood(good, j.chain).map(sinceWords) : [];
    const order = this.#run.order();
    const approval = LABELS.get('approval')?.options?.find(
      (o) => o.value === f.settings.approval,
    )?.label;
    return [
      { what: 'Host', words: names.host || 'not chosen' },
      {
        what: 'Port',
        words: port
          ? `${portName(port)}${port.mark ? `, marked "${port.mark}"` : ''}`
          : 'not chosen',
      },
      { what: 'Cable', words: names.cable || 'not chosen' },
      { what: 'Dock', words: names.dock || 'not chosen' },
      { what: 'Card', words: names.card || 'not chosen' },
      {
        what: 'Order',
        words: `${ORDER_WORDS[order].name}: ${ORDER_WORDS[order].what} ${passed ? `Worked ${day((passed.ended?.at ?? passed.startedAt).slice(0, 10))}.` : 'Not confirmed here yet.'}`,
      },
      { what: 'Approved', words: approval ?? 'not known' },
      {
        what: 'Must show',
        words:
          gen && lanes
            ? `×${formatWhole(lanes)} Gen${formatWhole(gen)} in front of the card, under load`
            : 'not known',
      },
      {
        what: 'Copy rate',
        words: `${rate(copy?.down)} Gb/s to the card, healthy from ${rate(healthyFrom?.down)}; ${rate(copy?.up)} back`,
      },
      { what: 'Versions', words: installedWords(f.installed) || 'not noted' },
      {
        what: 'Last good',
        words: good
          ? `${day(good.at.slice(0, 10))}: ${installedWords(good.installed) || 'versions not noted'}`
          : 'not marked yet',
      },
      { what: 'Since then', words: good ? changed.join('; ') || 'nothing changed' : '–' },
      { what: 'Docked', words: profileWords(f.docked.docked) || 'not noted' },
      { what: 'Undocked', words: profileWords(f.docked.undocked) || 'not noted' },
      { what: 'Buttons', words: f.docked.buttons.map(couplingWords).join('; ') || 'not tried' },
      { what: 'Programs', words: f.docked.programs.map(programWords).join('; ') || 'not noted' },
    ];
  });
}
