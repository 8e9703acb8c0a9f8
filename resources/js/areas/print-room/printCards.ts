import { openPdf } from '@/api/pdf';

export interface CardWish {
    section_ids?: string[];
    person_ids?: string[];
    layout: 'cards-a4' | 'cards-letter';
    order: 'reading' | 'cut_stack';
    lost?: boolean;
}

export const printCards = (url: string, wish: CardWish) => openPdf(url, wish);
