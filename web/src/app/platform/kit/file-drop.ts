import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';

/** A place to drop files on, with a button that opens them. What stands in it is the hint. */
@Component({
  selector: 'rb-file-drop',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="drop"
      [class.over]="over()"
      (dragover)="$event.preventDefault(); over.set(true)"
      (dragleave)="over.set(false)"
      (drop)="dropped($event)"
    >
      <p>
        {{ words() || (many() ? 'Drop files here' : 'Drop a file here') }} or
        <button mat-stroked-button type="button" (click)="box.click()">
          {{ many() ? 'Open files' : 'Open a file' }}
        </button>
        <input
          #box
          type="file"
          hidden
          [multiple]="many()"
          [accept]="accept()"
          [attr.aria-label]="label()"
          (change)="opened(box)"
        />
      </p>
      <ng-content />
    </div>
  `,
  styles: `
    .drop {
      display: grid;
      gap: 4px;
      padding: 12px;
      border: 1px dashed var(--rim);
    }
    .over {
      border-style: solid;
      background: var(--select);
    }
  `,
})
export class FileDrop {
  /** Name of the files for a screen reader. */
  readonly label = input.required<string>();
  readonly accept = input('');
  readonly many = input(false);
  /** What stands before the button. */
  readonly words = input('');
  readonly given = output<readonly File[]>();
  readonly over = signal(false);

  dropped(event: DragEvent): void {
    event.preventDefault();
    this.over.set(false);
    this.#give(event.dataTransfer?.files);
  }

  opened(box: HTMLInputElement): void {
    this.#give(box.files);
    box.value = '';
  }

  #give(list: FileList | null | undefined): void {
    const files = [...(list ?? [])];
    if (files.length > 0) this.given.emit(this.many() ? files : files.slice(0, 1));
  }
}
