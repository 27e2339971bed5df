import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import type { Act } from '@ruddy/core/bench';
import { partName, portName } from '@ruddy/core/chain';
import type {
  AdapterSpec,
  CableSpec,
  CardSpec,
  DockSpec,
  HostSpec,
  PartKind,
  SupplySpec,
} from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { BenchStore } from './bench-store';
import { PartsData } from '../parts/parts';
import { facts } from '../parts/part-facts';
import { MatButtonModule } from '@angular/material/button';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** Places on the table, host side first, and the kinds of part that go there. */
const PLACES = [
  { key: 'host', label: 'Host', kinds: ['host'] },
  { key: 'path', label: 'Cable', kinds: ['cable', 'adapter'] },
  { key: 'dock', label: 'Dock', kinds: ['dock'] },
  { key: 'card', label: 'Card', kinds: ['card'] },
  { key: 'supply', label: 'Supply', kinds: ['supply'] },
] as const;
type Place = (typeof PLACES)[number]['key'];
const KINDS: readonly PartKind[] = ['host', 'cable', 'adapter', 'dock', 'card', 'supply'];

/** What is in hand: a part from the shelf, or the plug of the cable. */
type InHand = { readonly kind: 'part'; readonly part: Part } | { readonly kind: 'plug' };

/** Parts on the table: dragged there from a shelf or tapped twice; the plug goes into any port the same two ways. */
@Component({
  selector: 'rb-table-panel',
  imports: [CdkDrag, CdkDropList, CdkDropListGroup, Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './table-panel.html',
  styleUrl: './table-panel.scss',
})
export class TablePanel {
  readonly store = inject(BenchStore);
  readonly #parts = inject(PartsData);
  readonly places = PLACES;
  readonly kindMeta: FieldMeta = {
    label: 'Kind',
    input: 'choice',
    options: KINDS.map((value) => ({ value, label: value })),
  };
  readonly find: FieldMeta = { label: 'Find on the shelf', input: 'text' };
  readonly kind = signal<PartKind>('host');
  readonly words = signal('');
  readonly hand = signal<InHand | null>(null);
  readonly nameOf = partName;
  readonly factsOf = facts;
  readonly #asked = computed(() => ({ kind: this.kind(), q: this.words().trim(), limit: 20 }));
  readonly shelf = toSignal(
    toObservable(this.#asked).pipe(
      debounceTime(150),
      switchMap((q) => this.#parts.list(q).pipe(catchError(() => of({ items: [] as Part[] })))),
    ),
  );

  readonly ports = computed(() => {
    const sockets = this.store.bench()?.chain.host?.sockets ?? [];
    return sockets.map((s) => ({
      key: s.key,
      name: portName(s),
      mark: s.mark,
      in: this.store.state()?.plugged === s.key,
    }));
  });
  readonly plugged = computed(() => this.store.state()?.plugged ?? null);
  readonly handWords = computed(() => {
    const h = this.hand();
    if (!h) return 'Tap a part, then its place; or drag it there.';
    return h.kind === 'plug'
      ? 'In hand: the plug of the cable. Choose a port.'
      : `In hand: ${partName(h.part.spec)}. Choose its place.`;
  });

  lies(place: Place): readonly string[] {
    const chain = this.store.bench()?.chain;
    if (!chain) return [];
    if (place === 'path') return (chain.path ?? []).map((p) => partName(p.spec));
    if (place === 'supply') return chain.supplies.map((s) => partName(s.spec));
    const part = chain[place];
    return part ? [partName(part)] : [];
  }

  /** May what is in hand go here? */
  takes(place: Place): boolean {
    const h = this.hand();
    return h?.kind === 'part' && this.#fits(place, h.part);
  }

  take(part: Part): void {
    const h = this.hand();
    this.hand.set(h?.kind === 'part' && h.part.id === part.id ? null : { kind: 'part', part });
  }

  takePlug(): void {
    this.hand.set(this.hand()?.kind === 'plug' ? null : { kind: 'plug' });
  }

  put(place: Place): void {
    const h = this.hand();
    if (h?.kind === 'part' && this.#fits(place, h.part)) this.#place(place, h.part);
  }

  away(place: Place): void {
    const act: Record<Place, Act> = {
      host: { act: 'place-host', spec: null },
      path: { act: 'place-path', spec: [] },
      dock: { act: 'place-dock', spec: null },
      card: { act: 'place-card', spec: null },
      supply: { act: 'place-supply', spec: null },
    };
    this.store.act(act[place]);
  }

  plug(socket: string): void {
    this.hand.set(null);
    this.store.act({ act: 'plug', socket });
  }

  dropped(place: Place, event: CdkDragDrop<unknown, unknown, InHand>): void {
    const h = event.item.data;
    if (h.kind === 'part' && this.#fits(place, h.part)) this.#place(place, h.part);
  }

  droppedOn(socket: string, event: CdkDragDrop<unknown, unknown, InHand>): void {
    if (event.item.data.kind === 'plug') this.plug(socket);
  }

  #fits(place: Place, part: Part): boolean {
    return PLACES.some(
      (p) => p.key === place && (p.kinds as readonly PartKind[]).includes(part.kind),
    );
  }

  #place(place: Place, part: Part): void {
    this.hand.set(null);
    const segments = this.store.bench()?.chain.path ?? [];
    const act: Record<Place, () => Act> = {
      host: () => ({ act: 'place-host', spec: part.spec as HostSpec }),
      // A cable replaces a cable and joins an adapter; an adapter joins what lies there.
      path: () => ({
        act: 'place-path',
        spec: joined(
          segments.map((p) => p.spec),
          part.spec as CableSpec | AdapterSpec,
        ),
      }),
      dock: () => ({ act: 'place-dock', spec: part.spec as DockSpec }),
      card: () => ({ act: 'place-card', spec: part.spec as CardSpec }),
      supply: () => ({ act: 'place-supply', spec: part.spec as SupplySpec }),
    };
    this.store.act(act[place]());
  }
}

type Segment = CableSpec | AdapterSpec;
const adapter = (p: Segment) => 'hostEnd' in p;

/** The path with one more segment: an adapter lies on the host's side of the cable; a second cable takes the first one's place. */
export function joined(segments: readonly Segment[], segment: Segment): Segment[] {
  const adapters = segments.filter(adapter);
  const cables = segments.filter((p) => !adapter(p));
  return adapter(segment) ? [...adapters, segment, ...cables].slice(-6) : [...adapters, segment];
}
