import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { fromEvent } from 'file-selector';

/** Path of a file with the folders it was given in; its name where it came alone. */
export function pathOf(file: File): string {
  const { relativePath } = file as File & { readonly relativePath?: string };
  return (relativePath || file.webkitRelativePath || file.name).replace(/^\.?\//, '');
}

/** A place to drop files and folders on, with buttons that open them. What stands in it is the hint. */
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
        @if (folders()) {
          <button mat-stroked-button type="button" (click)="folder.click()">Open a folder</button>
          <input
            #folder
            type="file"
            hidden
            webkitdirectory
            [attr.aria-label]="label() + ', a folder'"
            (change)="opened(folder)"
          />
        }
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
  /** Offers to open a folder; one that is dropped gives its files in any case. */
  readonly folders = input(false);
  /** What stands before the button. */
  readonly words = input('');
  readonly given = output<readonly File[]>();
  readonly over = signal(false);

  async dropped(event: DragEvent): Promise<void> {
    event.preventDefault();
    this.over.set(false);
    const list = await fromEvent(event);
    this.#give(list.flatMap((f) => (f instanceof File ? [f] : [])));
  }

  opened(box: HTMLInputElement): void {
    this.#give([...(box.files ?? [])]);
    box.value = '';
  }

  #give(files: readonly File[]): void {
    if (files.length > 0) this.given.emit(this.many() ? files : files.slice(0, 1));
  }
}
