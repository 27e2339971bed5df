import { provideHttpClient } from '@angular/common/http';
import { provideHttpClientTesting } from '@angular/common/http/testing';
import type { Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideRouter } from '@angular/router';
import { provideDays } from '../platform/kit/days';
import { type Chain, chainSchema } from '@ruddy/core/chain';

/** A USB4 port of a host, for tests. */
export const PORT = {
  key: 'left',
  connector: 'usb-c',
  standard: 'usb4-40',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: 4,
  lanes: 4,
};

/** A component with its inputs, settled. */
export async function shown<T>(
  component: Type<T>,
  inputs: object,
): Promise<{ el: HTMLElement; component: T; fixture: ComponentFixture<T> }> {
  TestBed.configureTestingModule({
    imports: [MatIconTestingModule],
    providers: [
      provideRouter([]),
      provideHttpClient(),
      provideHttpClientTesting(),
      provideDays('en-GB'),
    ],
  });
  const fixture = TestBed.createComponent(component);
  for (const [k, v] of Object.entries(inputs)) fixture.componentRef.setInput(k, v);
  await fixture.whenStable();
  const el = fixture.nativeElement as HTMLElement;
  return { el, component: fixture.componentInstance, fixture };
}

export const words = (el: Element | null) => (el?.textContent ?? '').replace(/\s+/g, ' ').trim();

const named = { maker: 'Alder', model: 'X' };

/** A tunnel chain of whole parts, for tests; what is given stands in. */
export function chainOf(over: object = {}): Chain {
  return chainSchema.parse({
    host: { ...named, form: 'laptop', sockets: [PORT] },
    socket: 'left',
    path: [
      {
        key: 'a',
        spec: {
          ...named,
          connector: 'usb-c',
          construction: 'passive',
          lengthMm: 700,
          markedGbps: 40,
        },
      },
    ],
    dock: {
      ...named,
      form: 'enclosure',
      connector: 'usb-c',
      uplink: 'usb4-40',
      slotGen: 3,
      slotLanes: 4,
    },
    card: { ...named, pcieGen: 4, lanes: 16 },
    ...over,
  });
}
