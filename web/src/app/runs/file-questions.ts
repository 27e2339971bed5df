import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import type { Alignment } from '@ruddy/core/runs';
import { badRowText, doubtText } from '@ruddy/core/runs/text';
import { EncodingChoice } from '../platform/kit/encoding-choice';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Fold } from '../platform/kit/fold';
import { pluralize } from '../platform/shared/format';
import { stateOf } from './file-words';
import { type DoubtfulFiles, type FileRow, isLog, RunFiles } from './run-files';

const BAD_SHOWN = 50;
const NAMES_SHOWN = 4;

/** What is asked about files before they can be stored: encodings, rows that cannot be read, doubts, and where logs belong. One question for files alike. */
@Component({
  selector: 'rb-file-questions',
  imports: [EncodingChoice, Field, Fold, MatButtonModule, MatProgressBarModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './file-questions.html',
  styleUrl: './file-questions.scss',
})
export class FileQuestions {
  readonly files = inject(RunFiles);
  readonly again = output<FileRow>();
  readonly counted = pluralize;
  readonly fate = stateOf;
  readonly shownBad = BAD_SHOWN;
  readonly doubtText = doubtText;
  readonly rest: FieldMeta = { label: 'Save the rest without them', input: 'flag' };
  readonly reading = computed(() => this.files.rows().filter((r) => r.state === 'reading'));
  readonly refused = computed(() =>
    this.files.rows().filter((r) => r.state === 'refused' || r.state === 'stopped'),
  );
  readonly withBad = computed(() => this.files.rows().filter((r) => (r.read?.badCount ?? 0) > 0));
  readonly logs = computed(() => this.files.rows().filter((r) => r.state === 'read' && isLog(r)));
  readonly notStored = computed(() =>
    this.files.rows().filter((r) => r.state === 'read' && r.why !== ''),
  );
  readonly besideMeta = computed<FieldMeta>(() => ({
    label: 'Recorded with',
    input: 'choice',
    placeholder: 'no file',
    options: this.files.captures().map((c) => ({ value: c.id, label: c.file.name })),
  }));

  bad(r: FileRow): string[] {
    const header = r.layout?.header ?? null;
    return (r.read?.bad ?? []).slice(0, BAD_SHOWN).map((b) => badRowText(b, header));
  }

  names(g: DoubtfulFiles): string {
    const names = g.files.slice(0, NAMES_SHOWN).map((f) => f.file.name);
    const more = g.files.length - names.length;
    return `${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
  }

  leaveOut(g: DoubtfulFiles): void {
    for (const f of g.files) this.files.remove(f.id);
  }

  fits(a: Alignment | null): string {
    if (!a) return 'Nothing to find the place by: move it by hand.';
    const r = `correlation ${a.r.toFixed(2)}`;
    return a.clear
      ? `Found by cross-correlation, ${r}.`
      : `No clear place, ${r} at best: left as recorded, move it by hand.`;
  }

  move(r: FileRow, byMs: number): void {
    this.files.patch(r.id, { offsetMs: r.offsetMs + byMs });
  }
}
