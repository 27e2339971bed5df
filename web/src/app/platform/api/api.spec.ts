import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { Api, ApiProblem } from './api';

describe('the way to the server', () => {
  let api: Api;
  let http: HttpTestingController;
  const failed = async (
    flush: () => void,
    call: () => ReturnType<Api['get']>,
  ): Promise<ApiProblem> => {
    const caught = new Promise<ApiProblem>((resolve) =>
      call().subscribe({ error: (e: ApiProblem) => resolve(e) }),
    );
    flush();
    return caught;
  };

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    api = TestBed.inject(Api);
    http = TestBed.inject(HttpTestingController);
  });

  it('leaves out query words that say nothing', () => {
    api.get('/parts', { kind: 'host', q: '', retired: false, cursor: undefined }).subscribe();
    expect(http.expectOne((r) => r.url === '/api/parts').request.params.toString()).toBe(
      'kind=host&retired=false',
    );
  });

  it('turns a refusal into a problem that knows its fields', async () => {
    const problem = {
      type: 'about:blank',
      title: 'Nothing stored',
      status: 422,
      detail: 'spec/model: empty',
      errors: [{ path: 'spec/model', message: 'must not be empty' }],
    };
    const e = await failed(
      () => http.expectOne('/api/parts').flush(problem, { status: 422, statusText: 'x' }),
      () => api.post('/parts', {}),
    );
    expect(e).toBeInstanceOf(ApiProblem);
    expect(e.message).toBe('spec/model: empty');
    expect([e.at('spec/model'), e.at('spec/maker')]).toEqual(['must not be empty', null]);
  });

  it('says when the server was not reached, and when its answer made no sense', async () => {
    const gone = await failed(
      () => http.expectOne('/api/rules').error(new ProgressEvent('x'), { status: 0 }),
      () => api.get('/rules'),
    );
    expect(gone.message).toBe('The server was not reached; nothing was stored');
    const odd = await failed(
      () => http.expectOne('/api/rules').flush('<html>', { status: 502, statusText: 'x' }),
      () => api.get('/rules'),
    );
    expect(odd.message).toBe('The server answered 502');
  });

  it('names the revision of an edit', () => {
    api.patch('/setups/1', {}, 7).subscribe();
    expect(http.expectOne('/api/setups/1').request.headers.get('If-Match')).toBe('"7"');
  });
});
