import type { Schemas } from '@/api/client';

export type Layout = Schemas['LayoutChoice']['layout'];

/** A layout of one's own, as typed. Lengths in mm. */
export interface Own {
    paper: 'a4' | 'letter' | 'a4-across' | 'letter-across';
    columns: string;
    rows: string;
    width: string;
    height: string;
    gap_x: string;
    gap_y: string;
    margin: string;
    cut: boolean;
}

/** What stands on a card, of what may be left off. */
export interface Shows {
    section: boolean;
    secret: boolean;
    square: boolean;
    school: boolean;
    address: boolean;
    pictures: boolean;
}

export interface Paper {
    layout: Layout;
    order: 'cut_stack' | 'reading';
    /** Places of the first sheet that are gone. */
    used: number;
    backs: boolean;
    shorten: boolean;
    /** Marks where a card is folded in the middle. */
    fold: boolean;
    shows: Shows;
    own: Own;
}

export const FIRST: Paper = {
    layout: 'cards-a4',
    order: 'cut_stack',
    used: 0,
    backs: false,
    shorten: false,
    fold: false,
    shows: { section: true, secret: true, square: true, school: true, address: true, pictures: false },
    own: {
        paper: 'a4',
        columns: '2',
        rows: '5',
        width: '90',
        height: '54',
        gap_x: '0',
        gap_y: '0',
        margin: '5',
        cut: false,
    },
};

/** What the server takes of it. */
export function paperWish({ layout, order, used, backs, fold, shows, own }: Paper) {
    const other = Object.fromEntries(
        (Object.keys(shows) as (keyof Shows)[])
            .filter((name) => shows[name] !== FIRST.shows[name])
            .map((name) => [name, shows[name]]),
    ) as Partial<Shows>;
    const { paper, cut, ...lengths } = own;
    return {
        layout,
        order,
        ...(used > 0 ? { used } : {}),
        ...(backs ? { backs } : {}),
        ...(fold ? { fold } : {}),
        ...other,
        ...(layout === 'own'
            ? {
                  paper,
                  cut,
                  columns: Number(lengths.columns),
                  rows: Number(lengths.rows),
                  width: Number(lengths.width),
                  height: Number(lengths.height),
                  gap_x: Number(lengths.gap_x),
                  gap_y: Number(lengths.gap_y),
                  margin: Number(lengths.margin),
              }
            : {}),
    };
}

/** The same in an address. */
export function paperQuery(paper: Paper): Record<string, string> {
    return Object.fromEntries(
        Object.entries(paperWish(paper)).map(([name, value]) => [
            name,
            typeof value === 'boolean' ? (value ? '1' : '0') : String(value),
        ]),
    );
}
