import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { rateQuestions, shareQuestions } from '@ruddy/core/parts';
import { questionText } from '@ruddy/core/parts/text';

/** What is odd about the figures in somebody's words, asked while they are typed. In: the words. They are stored as they are said. */
@Component({
  selector: 'rb-word-asks',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (q of asks(); track $index) {
      <p class="asks" role="status">{{ q }}</p>
    }
  `,
  styles: `
    .asks {
      border-left: 4px solid var(--ochre);
      padding-left: 6px;
    }
  `,
})
export class WordAsks {
  readonly words = input.required<string>();
  readonly asks = computed(() =>
    [...shareQuestions(this.words(), 'words'), ...rateQuestions(this.words(), 'words')].map(
      questionText,
    ),
  );
}
