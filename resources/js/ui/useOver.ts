import { useEffect, useState } from 'react';

/**
 * Where what opens over the page is put: in the top line, which stays while the pages below it come and go, and which
 * readers of the screen know as a part of the page. Null, and so the end of the document, on pages without one.
 */
export function useOver(): HTMLElement | null {
    const [over, setOver] = useState<HTMLElement | null>(null);
    useEffect(() => setOver(document.getElementById('top')), []);
    return over;
}
