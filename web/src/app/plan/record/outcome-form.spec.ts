import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { OutcomeForm } from './outcome-form';

const URL = '/api/setups/s1/outcomes';

describe('CO-02 the outcome form', () => {
  let fixture: ComponentFixture<OutcomeForm>;
  let http: HttpTestingController;
  let stored: number;
  const el = () => fixture.nativeElement as HTMLElement;
  const send = async () => {
    el().querySelector('form')?.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
  };
  const alert = () => el().querySelector('[role=alert]')?.textContent;

  beforeEach(async () => {
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(OutcomeForm);
    fixture.componentRef.setInput('setupId', 's1');
    stored = 0;
    fixture.componentInstance.stored.subscribe(() => stored++);
    await fixture.whenStable();
    http.match('/api/health');
  });

  it('asks for the outcome and sends nothing without it', async () => {
    await send();
    expect(alert()).toBe('Nothing stored. Outcome: choose one of the four');
    expect(el().querySelector('[type=radio]')?.getAttribute('aria-invalid')).toBe('true');
    http.expectNone(URL);
  });

  it('sends lines, versions that were noted, and confidence as a share', async () => {
    fixture.componentInstance.form.patchValue({
      outcome: 'care',
      happenedOn: '2026-11-03',
      symptoms: ' flicker \n\n coil whine',
      confidence: '80',
      versions: { driver: '41.2', system: ' ' },
    });
    await send();
    const { body } = http.expectOne(URL).request;
    expect(body).toMatchObject({
      outcome: 'care',
      symptoms: ['flicker', 'coil whine'],
      fixes: [],
      confidence: 0.8,
      versions: { driver: '41.2' },
      corrects: null,
    });
  });

  it('keeps words and id when unreached, so resending stores once', async () => {
    fixture.componentInstance.form.patchValue({
      outcome: 'fails',
      happenedOn: '2026-11-03',
      note: 'kept',
    });
    await send();
    const first = http.expectOne(URL);
    first.error(new ProgressEvent('x'), { status: 0 });
    await fixture.whenStable();
    expect(alert()).toContain('The server was not reached');
    expect(fixture.componentInstance.form.value.note).toBe('kept');
    await send();
    const second = http.expectOne(URL);
    expect(second.request.body.id).toBe(first.request.body.id);
    second.flush({});
    await fixture.whenStable();
    expect(stored).toBe(1);
    expect(fixture.componentInstance.form.value.note).toBe('');
    fixture.componentInstance.form.patchValue({ outcome: 'works', happenedOn: '2026-11-03' });
    await send();
    expect(http.expectOne(URL).request.body.id).not.toBe(first.request.body.id);
  });

  it('shows a refusal of the server at its field', async () => {
    fixture.componentInstance.form.patchValue({ outcome: 'works', happenedOn: '2026-12-03' });
    await send();
    const problem = {
      title: 'Nothing stored',
      status: 422,
      errors: [{ path: 'happenedOn', message: 'Date: is in the future' }],
    };
    http.expectOne(URL).flush(problem, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(el().querySelector('#o-day')?.getAttribute('aria-invalid')).toBe('true');
    expect(el().querySelector('.wrong')?.textContent).toBe('Date: is in the future');
  });

  it('a correction starts from what it corrects', async () => {
    fixture.componentRef.setInput('corrects', {
      id: '00000000-0000-7000-8000-000000000001',
      outcome: 'fails',
      happenedOn: '2026-10-01',
    });
    await fixture.whenStable();
    expect(fixture.componentInstance.form.value).toMatchObject({
      outcome: 'fails',
      happenedOn: '2026-10-01',
    });
    await send();
    expect(http.expectOne(URL).request.body.corrects).toBe('00000000-0000-7000-8000-000000000001');
  });
});
