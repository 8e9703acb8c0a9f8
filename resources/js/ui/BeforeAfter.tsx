import type { Schemas } from '@/api/client';

/** One cell of a plan: what it is, or what it was, struck out, before what it becomes. */
export function BeforeAfter({ cell, bad = false }: { cell: Schemas['Cell'] | undefined; bad?: boolean }) {
    if (!cell) return null;
    if (cell.before === cell.after) return <span className={bad ? 'text-madder' : ''}>{cell.after}</span>;
    return (
        <>
            {cell.before && (
                <>
                    <span className="sr-only">was </span>
                    <del className="text-muted">{cell.before}</del> <span className="sr-only">becomes </span>
                </>
            )}
            <ins className="font-semibold no-underline">{cell.after}</ins>
        </>
    );
}
