const GROUPS: Record<number, number[]> = { 7: [3, 4], 8: [4, 4], 9: [3, 3, 3], 10: [3, 4, 3] };
const LONGEST = 10;

/** What has been typed of a code, without dashes and in capitals, no longer than a code can be. */
export function codeSymbols(typed: string): string {
    return typed
        .toUpperCase()
        .replace(/[\s\p{Pd}_.]+/gu, '')
        .slice(0, LONGEST + 1);
}

/** The same with dashes where the wall has them; which places those are depends on the length, so far or whole. */
export function codeText(typed: string): string {
    const symbols = codeSymbols(typed);
    const groups = GROUPS[symbols.length] ?? [3, 4, 3];
    const parts: string[] = [];
    let at = 0;
    for (const length of groups) {
        if (at < symbols.length) parts.push(symbols.slice(at, at + length));
        at += length;
    }
    return parts.join('-') + (at < symbols.length ? symbols.slice(at) : '');
}
