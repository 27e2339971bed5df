import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { hostDraft, type Report } from '@ruddy/core/bring-up';
import { endsInSlot, isAdapter, partName, portName } from '@ruddy/core/chain';
import type { AnySpec, PartKind } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { SetupEditor } from '../setups/setup-editor';
import { DescribeHost } from './describe-host';
import { PartDescriber } from './describe';
import { PartPicker } from './part-picker';
import { Fold } from '../platform/kit/fold';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** The parts of the chain: what is chosen, and how to choose or describe another. */
@Component({
  selector: 'rb-parts-panel',
  imports: [Field, MatCheckboxModule, Fold, PartPicker, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './parts-panel.html',
  styleUrl: './parts-panel.scss',
})
export class PartsPanel {
  readonly #dialog = inject(MatDialog);
  readonly #describer = inject(PartDescriber);
  readonly editor = inject(SetupEditor);

  readonly chain = computed(() => this.editor.judgement()?.chain ?? null);
  readonly slots = computed(() => this.editor.fields()?.slots ?? null);
  readonly host = computed(() => (this.slots()?.host ? partName(this.chain()?.host) : ''));
  readonly dock = computed(() => (this.slots()?.dock ? partName(this.chain()?.dock) : ''));
  readonly card = computed(() => (this.slots()?.card ? partName(this.chain()?.card) : ''));
  readonly sockets = computed(() =>
    this.slots()?.host ? (this.chain()?.host?.sockets ?? []) : [],
  );
  /** One entry a cable of the path, and an empty one to choose the first. */
  readonly cables = computed(() => {
    const ids = this.slots()?.path;
    const specs = this.chain()?.path ?? [];
    return ids && ids.length > 0
      ? ids.map((id, i) => {
          const spec = specs[i]?.spec;
          return { id, name: partName(spec), kind: spec && isAdapter(spec) ? 'adapter' : 'cable' };
        })
      : [];
  });
  readonly segmentKinds: readonly PartKind[] = ['cable', 'adapter'];
  readonly noDock = computed(() => endsInSlot(this.chain()?.path ?? null) && !this.slots()?.dock);
  readonly noCable = computed(() => this.slots()?.path?.length === 0);

  readonly socketMeta = computed<FieldMeta>(() => ({
    label: 'Port',
    input: 'choice',
    placeholder: this.sockets().length === 0 ? 'choose a host first' : 'not chosen',
    options: this.sockets().map((k) => ({ value: k.key, label: this.socketWords(k) })),
  }));

  socketWords(s: { position: string; key: string; mark: string }): string {
    return [portName(s), s.mark ? `marked "${s.mark}"` : ''].filter((x) => x !== '').join(', ');
  }

  pick(slot: 'host' | 'dock' | 'card', part: Part | null): void {
    if (slot !== 'host') {
      // A dock with a fixed lead wants no cable chosen.
      const lead =
        part?.kind === 'dock' &&
        part.spec.fixedLead === 'yes' &&
        (this.slots()?.path ?? null) === null;
      this.editor.change({ slots: { [slot]: part?.id ?? null, ...(lead && { path: [] }) } });
      return;
    }
    // With one socket there is nothing to choose.
    const sockets = part?.kind === 'host' ? part.spec.sockets : [];
    this.editor.change({
      slots: {
        host: part?.id ?? null,
        socket: sockets.length === 1 ? (sockets[0]?.key ?? null) : null,
      },
    });
  }

  pickSocket(key: string | null): void {
    this.editor.change({ slots: { socket: key } });
  }

  pickCable(index: number, part: Part | null): void {
    const path = [...(this.slots()?.path ?? [])];
    if (part) path[index] = part.id;
    else path.splice(index, 1);
    this.editor.change({ slots: { path: path.length > 0 ? path : null } });
  }

  setNoCable(on: boolean): void {
    this.editor.change({ slots: { path: on ? [] : null } });
  }

  /** Describe a part that is not in the catalogue and choose it; a number is a place in the path. */
  describe(slot: 'dock' | 'card' | number, kind: PartKind = 'cable'): void {
    this.#describer
      .open(typeof slot === 'number' ? kind : slot)
      .subscribe((p) => (typeof slot === 'number' ? this.pickCable(slot, p) : this.pick(slot, p)));
  }

  /** Edit what is chosen: the part itself changes, and with it every setup that uses it. */
  edit(id: string | null): void {
    if (id !== null) this.#describer.edit(id).subscribe(() => this.editor.refresh());
  }

  describeHost(): void {
    this.#dialog
      .open<DescribeHost, never, Partial<AnySpec>>(DescribeHost, {
        width: '720px',
        maxWidth: '96vw',
      })
      .afterClosed()
      .subscribe(
        (spec) => spec && this.#describer.open('host', spec).subscribe((p) => this.pick('host', p)),
      );
  }

  /** What a machine told of itself, as a host to look over, add and choose. */
  fromReport(report: Report): void {
    this.#describer.open('host', hostDraft(report).spec).subscribe((p) => this.pick('host', p));
  }

  /** Put the cursor where a part of the strip is chosen. */
  focus(part: string): void {
    const ids: Record<string, string> = {
      system: 'pick-host',
      port: 'pick-socket',
      cable: 'pick-cable-0',
      dock: 'pick-dock',
      card: 'pick-card',
      screen: 'pick-screen-0',
      supply: 'pick-supply-0',
      use: 'add-use',
    };
    document.getElementById(ids[part] ?? '')?.focus();
  }
}
