import { ChangeDetectionStrategy, Component, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { PICTURE_CAUTION, PICTURE_STEPS } from '@ruddy/core/troubleshoot/text';

/** Before any diagnosis: how to get a picture back from a black screen, a freeze or a host that does not start. */
@Component({
  selector: 'rb-picture-first',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="picture-h">
      <h2 id="picture-h">First get a picture back</h2>
      <p class="caution"><strong>Caution</strong> {{ caution }}</p>
      <ol>
        @for (s of steps; track s) {
          <li>{{ s }}</li>
        }
      </ol>
      <div class="actions">
        <button mat-flat-button type="button" class="main" (click)="back.emit(true)">
          There is a picture: find the cause
        </button>
        <button mat-stroked-button type="button" class="tall" (click)="back.emit(false)">
          The host does not start without the dock
        </button>
      </div>
    </section>
  `,
  styles: `
    section {
      padding: 16px;
      max-width: 820px;
    }
    ol {
      display: grid;
      gap: 8px;
      margin: 12px 0 16px;
      padding-left: 24px;
      font-size: 16px;
      line-height: 24px;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .main,
    .tall {
      min-height: 56px;
    }
  `,
})
export class PictureFirst {
  readonly steps = PICTURE_STEPS;
  readonly caution = PICTURE_CAUTION;
  /** True: there is a picture; false: the host itself does not start. */
  readonly back = output<boolean>();
}
