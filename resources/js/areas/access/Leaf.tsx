import type { ReactNode } from 'react';

/** The page of a student, a guardian or someone invited: one thing, in the middle, phone first. */
export function Leaf({ title, children, above }: { title: string; children: ReactNode; above?: ReactNode }) {
    return (
        <main className="mx-auto flex min-h-full w-full max-w-md flex-col px-5 py-8">
            <p className="mb-8 border-b border-ink pb-2 font-serif font-semibold">{above ?? 'Vantrel'}</p>
            <h1 className="mb-5 text-2xl leading-tight">{title}</h1>
            {children}
        </main>
    );
}
