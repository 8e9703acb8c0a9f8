/** "1 student", "1,240 students", "3 people" with the plural given where it is not just an s. */
export function many(count: number, one: string, more = `${one}s`): string {
    return `${count.toLocaleString('en')} ${count === 1 ? one : more}`;
}

/** How two values agree, in words: what the matcher calls a level. */
const LEVELS: Record<string, string> = {
    turned: 'day and month swapped',
    akin: 'related form',
    'alike, claimed': 'same, not confirmed',
    'alike, elsewhere': 'same, at another school',
    'differs, elsewhere': 'different, at another school',
};

export function levelInWords(level: string): string {
    return LEVELS[level] ?? level;
}

/** A verdict of a plan as it is said of one row, or of several. */
export function verdictInWords(verdict: string, rows = 1): string {
    if (verdict === 'ask') return rows === 1 ? 'needs an answer' : 'need an answer';
    return verdict === 'cannot' ? 'can’t be used' : verdict;
}
