import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import type { HarnessLoader } from '@angular/cdk/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatButtonHarness } from '@angular/material/button/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { provideDays } from '../../platform/kit/days';
import { FieldHarness } from '../../platform/kit/testing/field-harness';
import { OutcomeForm } from './outcome-form';

const URL = '/api/setups/00000000-0000-7000-8000-000000000009/outcomes';

describe('CO-02 the outcome form', () => {
  let fixture: ComponentFixture<OutcomeForm>;
  let loader: HarnessLoader;
  let http: HttpTestingController;
  let stored: number;
  const form = () => fixture.componentInstance.form;
  const field = (label: string) => loader.getHarness(FieldHarness.byLabel(label));
  const alert = () =>
    (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent;
  const send = async () => {
    await (await loader.getHarness(MatButtonHarness.with({ text: /Log outcome|Save/ }))).click();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({
      imports: [MatIconTestingModule],
      providers: [provideHttpClient(), provideHttpClientTesting(), provideDays('en-GB')],
    });
    http = TestBed.inject(HttpTestingController);
    fixture = TestBed.createComponent(OutcomeForm);
    loader = TestbedHarnessEnvironment.loader(fixture);
    fixture.componentRef.setInput('setupId', '00000000-0000-7000-8000-000000000009');
    stored = 0;
    fixture.componentInstance.stored.subscribe(() => stored++);
    await fixture.whenStable();
    http.match('/api/health');
  });

  it('asks for the outcome and sends nothing without it', async () => {
    await send();
    expect(alert()).toBe('Not saved. See the marked fields.');
    const outcome = await field('What happened');
    expect(await (await outcome.host()).text()).toContain(
      'Choose one of: Works, Works with care, Unreliable, Fails',
    );
    http.expectNone(URL);
  });

  it('sends lines, versions that were noted, and confidence as a share', async () => {
    await (await field('What happened')).choose('Works with care');
    await (await field('Date')).type('3.11.2026');
    await (await field('Symptoms')).type(' flicker \n\n coil whine');
    await (await field('Confidence')).type('80');
    form().patchValue({ versions: { driver: '41.2', system: ' ' } });
    await send();
    const { body } = http.expectOne(URL).request;
    expect(body).toMatchObject({
      outcome: 'care',
      happenedOn: '2026-11-03',
      symptoms: ['flicker', 'coil whine'],
      fixes: [],
      confidence: 0.8,
      versions: { driver: '41.2' },
      corrects: null,
    });
  });

  it('keeps words and id when unreached, so resending stores once', async () => {
    form().patchValue({ outcome: 'fails', happenedOn: '2026-11-03', note: 'kept' });
    await send();
    const first = http.expectOne(URL);
    first.error(new ProgressEvent('x'), { status: 0 });
    await fixture.whenStable();
    expect(alert()).toContain('The server was not reached');
    expect(form().value.note).toBe('kept');
    await send();
    const second = http.expectOne(URL);
    expect(second.request.body.id).toBe(first.request.body.id);
    second.flush({});
    await fixture.whenStable();
    expect(stored).toBe(1);
    expect(form().value.note).toBe('');
    form().patchValue({ outcome: 'works', happenedOn: '2026-11-03' });
    await send();
    expect(http.expectOne(URL).request.body.id).not.toBe(first.request.body.id);
  });

  it('shows a refusal of the server at its field', async () => {
    form().patchValue({ outcome: 'works', happenedOn: '2026-12-03' });
    await send();
    const problem = {
      title: 'Not saved',
      status: 422,
      errors: [{ path: 'happenedOn', message: 'Date: is in the future' }],
    };
    http.expectOne(URL).flush(problem, { status: 422, statusText: 'x' });
    await fixture.whenStable();
    expect(await (await field('Date')).error()).toBe('Date: is in the future');
  });

  it('a correction starts from what it corrects', async () => {
    fixture.componentRef.setInput('corrects', {
      id: '00000000-0000-7000-8000-000000000001',
      outcome: 'fails',
      happenedOn: '2026-10-01',
    });
    await fixture.whenStable();
    expect(form().value).toMatchObject({ outcome: 'fails', happenedOn: '2026-10-01' });
    await send();
    expect(http.expectOne(URL).request.body.corrects).toBe('00000000-0000-7000-8000-000000000001');
  });
});
