import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { of, Subject } from 'rxjs';
import type { RunEntry, SessionEntry } from '@ruddy/core/runs/contract';
import { SetupsData } from '../../setups/setups';
import { RunsData } from '../runs';
import { SessionsPage } from './sessions-page';

const session = {
  id: 'lid',
  rev: 1,
  name: 'Lid tonight',
  question: 'Lid open or closed?',
  title: '',
  percent: 10,
  repeats: 3,
  setupIds: ['desk'],
  factors: [{ dimension: 'lid', levels: ['open', 'closed'], minutes: 1 }],
  createdAt: '2026-11-20T19:00:00Z',
} as unknown as SessionEntry;

describe('a session whose runs are still being read', () => {
  it('names no cell and takes no files', async () => {
    const runs = new Subject<RunEntry[]>();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: RunsData, useValue: { sessions: () => of([session]), all: () => runs } },
        {
          provide: SetupsData,
          useValue: { list: () => of({ items: [{ id: 'desk', name: 'Desk' }] }) },
        },
      ],
    });
    const fixture = TestBed.createComponent(SessionsPage);
    fixture.componentRef.setInput('id', 'lid');
    const page = fixture.nativeElement as HTMLElement;
    const heading = () => page.querySelector('h1')!.textContent;
    // Not whenStable: it waits for the runs.
    await vi.waitFor(() => {
      fixture.detectChanges();
      expect(heading()).toBe('“Lid tonight”: reading what is measured …');
    });
    expect(page.querySelector('rb-file-drop')).toBeNull();
    runs.next([]);
    runs.complete();
    await fixture.whenStable();
    expect(heading()).toMatch(/^Next: open, 3 runs of 3/);
    expect(page.querySelector('rb-file-drop')).not.toBeNull();
  });
});
