import { ApiError } from './client';

interface Asked {
    state: { data: unknown; error: unknown };
}

/**
 * Asked again every so many milliseconds, but for what the server has said is not there: asked for behind the page's
 * back it would be said to be loading, and then not to be there, again and again.
 */
export function live(milliseconds: number): (query: Asked) => number | false {
    return ({ state }) => (state.data === undefined && state.error instanceof ApiError ? false : milliseconds);
}
