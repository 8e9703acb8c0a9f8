import { openPdf } from '@/api/pdf';
import type { paperWish } from './paper';

export type CardWish = ReturnType<typeof paperWish> & {
    section_ids?: string[];
    person_ids?: string[];
    lost?: boolean;
    shorten?: boolean;
};

export const printCards = (url: string, wish: CardWish) => openPdf(url, wish);
