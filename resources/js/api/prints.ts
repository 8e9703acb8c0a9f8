import { api, ApiError, data, type Schemas } from './client';

export type Print = Schemas['PrintView'];

/** Milliseconds between two looks at a print that is being set. */
const LOOK = 700;

export const printFile = (print: Print) => `/api/prints/${print.id}/file`;

/**
 * Has the server print something and opens it beside this page once it stands. It is kept for a day: a page that is
 * closed in between finds it in the Print room.
 */
export async function openPrint(begin: () => Promise<Print>, told: (print: Print) => void = () => undefined) {
    // Opened before the answer is there: a window opened later would be taken for an unwanted one.
    const view = window.open('', '_blank');
    try {
        let print = await begin();
        while (print.state === 'waiting' || print.state === 'working') {
            told(print);
            await new Promise((resolve) => setTimeout(resolve, LOOK));
            print = await data(api.GET('/api/prints/{print}', { params: { path: { print: print.id } } }));
        }
        if (print.state === 'failed')
            throw new ApiError(422, 'Not printed', print.problem ?? 'It could not be printed.');
        if (view) view.location.href = printFile(print);
        else window.location.href = printFile(print);
    } catch (error) {
        view?.close();
        throw error;
    }
}
