/** How the page’s language writes a day; English as schools outside the machine’s own country read it too. */
function locale(): string {
    const spoken = document.documentElement.lang;
    return spoken === '' || spoken === 'en' ? 'en-GB' : spoken;
}

/** "7 December", with the year where it is another. */
export function day(iso: string): string {
    const date = new Date(iso.length === 10 ? `${iso}T12:00:00` : iso);
    return date.toLocaleDateString(locale(), {
        day: 'numeric',
        month: 'long',
        ...(date.getFullYear() === new Date().getFullYear() ? {} : { year: 'numeric' }),
    });
}

/** "7 December, 14:03". */
export function moment(iso: string): string {
    const clock = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const;
    return `${day(iso)}, ${new Date(iso).toLocaleTimeString(locale(), clock)}`;
}

/** Until when something that is done now can be undone; nothing where it cannot be. */
export function undoable(until: string | null | undefined): string {
    return until ? `Can be undone until ${day(until)}.` : '';
}

/** "today", "yesterday", "3 days", for how long something has waited. */
export function since(iso: string, now = new Date()): string {
    const days = Math.floor((now.getTime() - new Date(`${iso.slice(0, 10)}T00:00:00`).getTime()) / 86_400_000);
    if (days <= 0) return 'today';
    if (days === 1) return 'yesterday';
    return days < 60 ? `${days} days` : day(iso.slice(0, 10));
}

/** YYYY-MM-DD where this device is: not the day it is in Greenwich. */
export function isoDay(date: Date): string {
    const two = (n: number) => String(n).padStart(2, '0');
    return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}

/** The last day of an interval that is kept with the first day after. */
export function lastDay(after: string): string {
    const date = new Date(`${after}T12:00:00`);
    date.setDate(date.getDate() - 1);
    return day(isoDay(date));
}
