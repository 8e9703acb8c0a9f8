import type { Schemas } from '@/api/client';

type Detail = Schemas['IntakeDetail'];
export type Sheet = Detail['sheets'][number];
export type SheetRow = Schemas['PicturedRow'];

/** What a row is, in the words of the page. */
export const PARTS: Record<SheetRow['part'], string> = {
    header: 'header',
    groups: 'groups',
    heading: 'heading',
    title: 'title',
    total: 'total',
    repeated: 'header again',
    hidden: 'hidden',
    struck: 'struck out',
    text: 'text',
    skipped: 'left out',
    row: '',
};

export const FATES: Record<Schemas['PicturedCell']['fate'], string> = {
    read: 'Read as',
    mended: 'Corrected',
    asked: 'Asked',
    says: 'Heading',
    left: 'Nothing is made of it',
    above: 'Empty',
    blank: 'Empty',
};

/** A, B .. Z, AA: what a spreadsheet calls its columns. */
export function letter(place: number): string {
    return (
        (place >= 26 ? String.fromCharCode(64 + Math.floor(place / 26)) : '') + String.fromCharCode(65 + (place % 26))
    );
}

/** What a column of the sheet is read as, by the table that has it; undefined where no table does. */
export function columnAt(sheets: Sheet[], source: number, place: number) {
    for (const sheet of sheets) {
        const column = sheet.source === source ? sheet.columns.find((c) => c.place === place) : undefined;
        if (column) return { sheet, column };
    }
    return undefined;
}

/** Columns of the sheet in which a table begins that stands beside another. */
export function starts(sheets: Sheet[], source: number): number[] {
    const first = sheets
        .filter((s) => s.source === source)
        .map((s) => Math.min(...s.columns.map((c) => c.place).filter((p) => p >= 0)));
    const all = [...new Set(first)].sort((a, b) => a - b);
    return all.length > 1 ? all.slice(1) : [];
}

/** What can be said of rows: the words of each, and the answers it sends. */
export function sayings(
    source: number,
    rows: SheetRow[],
    said: string[],
): { label: string; answers: Record<string, string | null> }[] {
    const first = rows[0];
    if (!first) return [];
    const one = rows.length === 1;
    const each = (answer: string | null) => Object.fromEntries(rows.map((r) => [`s${source}.r${r.number}`, answer]));
    const these = one ? 'this row' : `these ${rows.length} rows`;
    const out = [];
    if (one && first.part !== 'header') {
        out.push({ label: 'This is the header', answers: { [`s${source}.header`]: String(first.number) } });
    }
    if (one && first.part === 'header') {
        out.push({ label: 'There is no header', answers: { [`s${source}.header`]: '0' } });
    }
    if (rows.some((r) => r.part === 'row')) out.push({ label: `Leave ${these} out`, answers: each('skip') });
    if (rows.some((r) => r.part !== 'row' && r.part !== 'header')) {
        out.push({ label: `Read ${these} as ${one ? 'a row' : 'rows'} of the list`, answers: each('row') });
    }
    if (rows.some((r) => said.includes(`s${source}.r${r.number}`))) {
        out.push({ label: `Take back what was said of ${these}`, answers: each(null) });
    }
    if (said.includes(`s${source}.header`)) {
        out.push({ label: 'Take back which row is the header', answers: { [`s${source}.header`]: null } });
    }
    return out;
}
