import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import type { Observable } from 'rxjs';
import { ApiClient, ApiError } from './api-client';

describe('the way to the server', () => {
  let api: ApiClient;
  let http: HttpTestingController;
  const failed = async (flush: () => void, call: () => Observable<unknown>): Promise<ApiError> => {
    const caught = new Promise<ApiError>((resolve) =>
      call().subscribe({ error: (e: ApiError) => resolve(e) }),
    );
    flush();
    return caught;
  };

  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting()],
    });
    api = TestBed.inject(ApiClient);
    http = TestBed.inject(HttpTestingController);
  });

  it('leaves out query words that say nothing', () => {
    api
      .call('GET /api/parts', { query: { kind: 'host', q: '', retired: false, cursor: undefined } })
      .subscribe();
    expect(http.expectOne((r) => r.url === '/api/parts').request.params.toString()).toBe(
      'kind=host&retired=false',
    );
  });

  it('turns a refusal into a problem that knows its fields', async () => {
    const problem = {
      type: 'about:blank',
      title: 'Not saved',
      status: 422,
      detail: 'spec/model: empty',
      errors: [{ path: 'spec/model', message: 'must not be empty' }],
    };
    const e = await failed(
      () => http.expectOne('/api/parts').flush(problem, { status: 422, statusText: 'x' }),
      () => api.call('GET /api/parts'),
    );
    expect(e).toBeInstanceOf(ApiError);
    expect(e.message).toBe('spec/model: empty');
    expect([e.at('spec/model'), e.at('spec/maker')]).toEqual(['must not be empty', null]);
  });

  it('says when the server was unreachable or made no sense', async () => {
    const gone = await failed(
      () => http.expectOne('/api/rules').error(new ProgressEvent('x'), { status: 0 }),
      () => api.call('GET /api/rules'),
    );
    expect(gone.message).toBe('The server was not reached; nothing was stored');
    const odd = await failed(
      () => http.expectOne('/api/rules').flush('<html>', { status: 502, statusText: 'x' }),
      () => api.call('GET /api/rules'),
    );
    expect(odd.message).toBe('The server answered 502');
  });

  it('names the revision of an edit', () => {
    api.call('PATCH /api/setups/:id', { params: { id: 'a/b' }, body: {}, revision: 7 }).subscribe();
    const { request } = http.expectOne('/api/setups/a%2Fb');
    expect([request.method, request.headers.get('If-Match')]).toEqual(['PATCH', '"7"']);
  });
});
