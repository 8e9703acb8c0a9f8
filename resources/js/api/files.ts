import { csrfToken, problemOf } from './client';

/** Sends files, which the typed client cannot; what is refused is thrown as it throws it. */
export async function sendFiles<T>(url: string, form: FormData): Promise<T> {
    const response = await fetch(url, {
        method: 'POST',
        body: form,
        headers: { Accept: 'application/json', 'X-XSRF-TOKEN': csrfToken() },
    });
    if (!response.ok) throw await problemOf(response);
    return (await response.json()) as T;
}
