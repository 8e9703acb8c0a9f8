import { csrfToken, onceHeader, problemOf } from './client';

/** Has the server set a PDF and opens it beside this page. The file is kept nowhere. */
export async function openPdf(url: string, body: object): Promise<void> {
    // Opened before the answer is there: a window opened later would be taken for an unwanted one.
    const view = window.open('', '_blank');
    try {
        const response = await fetch(
            new Request(url, {
                method: 'POST',
                headers: {
                    Accept: 'application/json',
                    'Content-Type': 'application/json',
                    'X-XSRF-TOKEN': csrfToken(),
                    ...onceHeader(),
                },
                body: JSON.stringify(body),
            }),
        );
        if (!response.ok) throw await problemOf(response);
        const pdf = URL.createObjectURL(await response.blob());
        if (view) view.location.href = pdf;
        else window.location.href = pdf;
        setTimeout(() => URL.revokeObjectURL(pdf), 600_000);
    } catch (error) {
        view?.close();
        throw error;
    }
}
