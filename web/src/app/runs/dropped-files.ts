import { Injectable } from '@angular/core';

/** Files dropped on a page that only leads on: the page they belong to takes them. */
@Injectable({ providedIn: 'root' })
export class DroppedFiles {
  #files: File[] = [];

  put(files: readonly File[]): void {
    this.#files = [...files];
  }

  take(): File[] {
    const files = this.#files;
    this.#files = [];
    return files;
  }
}
