import { TestBed } from '@angular/core/testing';
import type { Report } from '@ruddy/core/bring-up';
import { ReportBox } from '../chain/report-box';

async function box() {
  const fixture = TestBed.createComponent(ReportBox);
  const read: Report[] = [];
  fixture.componentInstance.report.subscribe((r) => read.push(r));
  await fixture.whenStable();
  const el = fixture.nativeElement as HTMLElement;
  return {
    fixture,
    el,
    read,
    problem: () => el.querySelector('[role=alert]')?.textContent ?? null,
  };
}
const LISTING =
  '00:02.0 VGA compatible controller: Harnsey L-13 graphics\n\tCapabilities: <access denied>';

describe('the box that takes a report', () => {
  it('hands on what it read and keeps what it could not', async () => {
    const b = await box();
    const area = b.el.querySelector('textarea') as HTMLTextAreaElement;
    area.value = 'no listing';
    b.fixture.componentInstance.read(area.value);
    await b.fixture.whenStable();
    expect(b.problem()).toContain('The first line reads "no listing"');
    expect(area.getAttribute('aria-invalid')).toBe('true');
    expect(area.value).toBe('no listing');
    b.fixture.componentInstance.read(LISTING);
    await b.fixture.whenStable();
    expect([b.read.length, b.problem()]).toEqual([1, null]);
  });

  it('reads what is pasted without another click', async () => {
    const b = await box();
    const area = b.el.querySelector('textarea') as HTMLTextAreaElement;
    area.value = LISTING;
    area.dispatchEvent(new Event('paste'));
    await new Promise((resolve) => setTimeout(resolve));
    expect(b.read[0]?.devices).toHaveLength(1);
  });

  it('a paste far too long is refused before the box', async () => {
    const b = await box();
    const paste = (text: string) => {
      const event = new Event('paste', { cancelable: true });
      b.el
        .querySelector('textarea')
        ?.dispatchEvent(Object.assign(event, { clipboardData: { getData: () => text } }));
      return event.defaultPrevented;
    };
    expect([paste(LISTING), paste('x'.repeat(2_000_001))]).toEqual([false, true]);
    await b.fixture.whenStable();
    expect(b.problem()).toContain('2.0 million characters, at most 2.0 million');
  });

  it('reads a dropped file, refuses one too big', async () => {
    const b = await box();
    const drop = async (file: File) => {
      const event = Object.assign(new Event('drop'), { dataTransfer: { files: [file] } });
      b.fixture.componentInstance.dropped(event as unknown as DragEvent);
      await new Promise((resolve) => setTimeout(resolve, 20));
      await b.fixture.whenStable();
    };
    await drop(new File([LISTING], 'listing.txt'));
    expect(b.read).toHaveLength(1);
    await drop(new File([new Uint8Array(9_000_000)], 'disk.img'));
    expect(b.problem()).toContain('"disk.img" has 9.0 MB');
    expect(b.read).toHaveLength(1);
  });
});
