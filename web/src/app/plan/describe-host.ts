import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { hostDraft, type HostDraft, type Report } from '@ruddy/core/bring-up';
import { READ_COMMAND, UNSAID_TEXTS } from '@ruddy/core/bring-up/text';
import type { HostSpec, SocketSpec } from '@ruddy/core/parts';
import { ReportBox } from '../chain/report-box';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { MatRadioModule } from '@angular/material/radio';

interface Mark {
  id: string;
  words: string;
  path: string;
  /** Drawn beside or in the shape, at x. */
  text: string;
  x: number;
  socket: Pick<SocketSpec, 'connector' | 'standard' | 'tunnelling'>;
}

/** What may be printed beside a port, drawn our own way, and what it says. */
const BOX = 'M4 8h40v16H4z';
const ARROW = 'M26 4 16 17h7l-4 11 12-14h-8z';
const usb = (
  standard: SocketSpec['standard'],
  tunnelling: SocketSpec['tunnelling'] = null,
): Mark['socket'] => ({
  connector: 'usb-c',
  standard,
  tunnelling,
});

const MARKS: Mark[] = [
  { id: '40', words: 'the number 40', path: BOX, text: '40', x: 24, socket: usb('usb4-40') },
  { id: '20', words: 'the number 20', path: BOX, text: '20', x: 24, socket: usb('usb4-20') },
  { id: '80', words: 'the number 80', path: BOX, text: '80', x: 24, socket: usb('usb4-80') },
  {
    id: 'arrow',
    words: 'a jagged arrow, no number',
    path: ARROW,
    text: '',
    x: 0,
    socket: usb({ oneOf: ['thunderbolt-3', 'thunderbolt-4'] }, 'yes'),
  },
  {
    id: 'arrow-4',
    words: 'a jagged arrow with a 4',
    path: ARROW,
    text: '4',
    x: 38,
    socket: usb('thunderbolt-4', 'yes'),
  },
  {
    id: 'arrow-5',
    words: 'a jagged arrow with a 5',
    path: ARROW,
    text: '5',
    x: 38,
    socket: usb('thunderbolt-5', 'yes'),
  },
  {
    id: 'plain',
    words: 'only a fork, a battery or a screen sign',
    path: 'M24 28V6m0 14-8-5v-4m8 13 8-5v-4',
    text: '',
    x: 0,
    socket: usb(null),
  },
  {
    id: 'flat',
    words: 'a wide flat socket, not USB-C',
    path: 'M6 11h36v10H6zm5 3v4m5-4v4m5-4v4m5-4v4m5-4v4',
    text: '',
    x: 0,
    socket: { connector: 'oculink-4i', standard: 'oculink', tunnelling: null },
  },
  { id: 'unsure', words: 'nothing, or not sure', path: '', text: '?', x: 24, socket: usb(null) },
];
const UNSURE = MARKS[MARKS.length - 1] as Mark;

const FORMS = [
  { id: 'laptop', words: 'Laptop' },
  { id: 'mini-pc', words: 'Mini PC' },
  { id: 'handheld', words: 'Handheld' },
  { id: 'desktop', words: 'Desktop' },
] as const;

/** Three questions that make a first description of a host; "not sure" is a good answer to each. */
@Component({
  imports: [MatRadioModule, Field, Fold, MatDialogModule, MatButtonModule, ReportBox],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './describe-host.html',
  styleUrl: './describe-host.scss',
})
export class DescribeHost {
  readonly #ref = inject<MatDialogRef<DescribeHost, Partial<HostSpec>>>(MatDialogRef);
  readonly marks = MARKS;
  readonly formMeta: FieldMeta = {
    label: 'Kind of host',
    input: 'toggle',
    options: FORMS.map((f) => ({ value: f.id, label: f.words })),
  };
  readonly makerMeta: FieldMeta = {
    label: 'Maker',
    input: 'text',
    max: 80,
    placeholder: 'not sure',
  };
  readonly modelMeta: FieldMeta = { ...this.makerMeta, label: 'Model' };
  readonly maker = new FormControl('', { nonNullable: true });
  readonly model = new FormControl('', { nonNullable: true });
  readonly form = signal<HostSpec['form']>('laptop');
  readonly mark = signal<Mark>(UNSURE);

  readonly draft = signal<HostDraft | null>(null);
  readonly unsaid = UNSAID_TEXTS;
  readonly command = READ_COMMAND;

  take(report: Report): void {
    const draft = hostDraft(report);
    this.draft.set(draft);
    this.maker.setValue(draft.spec.maker);
    this.model.setValue(draft.spec.model);
    if (report.machine) this.form.set(draft.spec.form);
  }

  next(event: Event): void {
    event.preventDefault();
    const maker = this.maker.value;
    const model = this.model.value;
    const socket = this.mark();
    const unknown = {
      tb3Compat: null,
      controller: null,
      pcieGen: null,
      lanes: null,
      completionBytes: null,
      family: '',
      holds: null,
      reach: null,
      chargeInW: null,
      chargeOutW: null,
    };
    const sockets = this.draft()?.spec.sockets;
    this.#ref.close({
      maker: maker.trim() || 'Not sure',
      model:
        model.trim() ||
        `My ${FORMS.find((f) => f.id === this.form())?.words.toLowerCase() ?? 'host'}`,
      variant: this.draft()?.spec.variant ?? '',
      form: this.form(),
      // What the machine told of its ports wins over one mark.
      sockets: sockets ?? [
        {
          key: 'left',
          position: '',
          mark: socket.id === 'unsure' ? '' : socket.words,
          ...socket.socket,
          ...unknown,
        },
      ],
    });
  }
}
