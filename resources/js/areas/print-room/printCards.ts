import { csrfToken, problemOf } from '@/api/client';

export interface CardWish {
    section_ids?: string[];
    person_ids?: string[];
    layout: 'cards-a4' | 'cards-letter';
    order: 'reading' | 'cut_stack';
    lost?: boolean;
}

/** Has the server set the cards and opens the PDF beside this page. The file is not kept anywhere. */
export async function printCards(url: string, wish: CardWish): Promise<void> {
    // Opened before the answer is there: a window opened later would be taken for an unwanted one.
    const window_ = window.open('', '_blank');
    try {
        const response = await fetch(url, {
            method: 'POST',
            headers: { Accept: 'application/json', 'Content-Type': 'application/json', 'X-XSRF-TOKEN': csrfToken() },
            body: JSON.stringify(wish),
        });
        if (!response.ok) throw await problemOf(response);
        const pdf = URL.createObjectURL(await response.blob());
        if (window_) window_.location.href = pdf;
        else window.location.href = pdf;
        setTimeout(() => URL.revokeObjectURL(pdf), 600_000);
    } catch (error) {
        window_?.close();
        throw error;
    }
}
