import { expect, it, vi } from 'vitest';

it('sends for what it has only to hear whether it has changed', async () => {
    const asked: (string | null)[] = [];
    let text = '{"sections":["3 Heron"]}';
    vi.stubGlobal('fetch', async (request: Request) => {
        asked.push(request.headers.get('If-None-Match'));
        const tag = `"${text.length}"`;
        return request.headers.get('If-None-Match') === tag
            ? new Response(null, { status: 304 })
            : new Response(text, { headers: { 'Content-Type': 'application/json', ETag: tag } });
    });
    const { api, data } = await import('./client');
    const get = () => data(api.GET('/api/schools/{school}/sections', { params: { path: { school: 'S' } } }));
    expect(await get()).toEqual({ sections: ['3 Heron'] });
    expect(await get()).toEqual({ sections: ['3 Heron'] });
    text = '{"sections":["3 Heron","3 Plover"]}';
    expect(await get()).toEqual({ sections: ['3 Heron', '3 Plover'] });
    expect(asked).toEqual([null, '"24"', '"24"']);
});
