import { ChangeDetectionStrategy, Component } from '@angular/core';
import { ButtonsPanel } from './buttons-panel';
import { ProfilesPanel } from './profiles-panel';
import { ProgramsPanel } from './programs-panel';
import { TuningPanel } from './tuning-panel';

/** Living with the dock: both states of the host, programs, buttons, tuning. */
@Component({
  selector: 'rb-docked-view',
  imports: [ProfilesPanel, ProgramsPanel, ButtonsPanel, TuningPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="caution">
      <strong>Heat stops and burns.</strong> Raise limits in small steps and only as far as the
      maker of the host allows; the maker's manual has the last word.
    </p>
    <div class="grid">
      <section class="sheet" aria-labelledby="p-h">
        <h2 id="p-h">Docked and undocked</h2>
        <rb-profiles-panel />
      </section>
      <section class="sheet" aria-labelledby="g-h">
        <h2 id="g-h">Programs</h2>
        <rb-programs-panel />
      </section>
      <section class="sheet" aria-labelledby="t-h">
        <h2 id="t-h">Tuning, one step at a time</h2>
        <rb-tuning-panel />
      </section>
      <section class="sheet" aria-labelledby="b-h">
        <h2 id="b-h">What each button does</h2>
        <rb-buttons-panel />
      </section>
    </div>
  `,
  styles: `
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(100%, 440px), 1fr));
      gap: 16px;
      align-items: start;
      padding-top: 12px;
    }
    section.sheet {
      padding: 12px;
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 8px;
      min-width: 0;
    }
  `,
})
export class DockedView {}
