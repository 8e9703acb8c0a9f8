import type { ReactNode } from 'react';
import { useTranslation } from 'react-i18next';
import { ApiError } from '@/api/client';
import { problem } from '@/areas/access/problem';
import { Button } from './Button';

/** What of a query says whether there is anything to show. */
export interface Asked {
    error: unknown;
    isFetching: boolean;
    refetch: () => unknown;
}

/**
 * What stands where something is not yet there: that it is on its way, or that it did not come, with another try. Only
 * what the server says is not there is said not to be there.
 */
export function Instead({
    of,
    what,
    gone,
    way,
    size = 'page',
}: {
    of: Asked;
    /** "the sections of this year"; left out on pages of students and guardians, which speak their language */
    what?: string;
    /** What is said where the server does not have it, in place of a general sentence. */
    gone?: string;
    /** A way on from here, where there is one. */
    way?: ReactNode;
    size?: 'page' | 'part';
}) {
    const { t } = useTranslation();
    const frame = size === 'page' ? 'max-w-xl px-6 py-10' : 'py-2 text-sm';
    if (of.error === null || of.error === undefined)
        return (
            <p role="status" className={`${frame} appears text-muted`}>
                {what ? `Loading ${what}…` : t('One moment…')}
            </p>
        );
    const missing = of.error instanceof ApiError && of.error.status === 404;
    const Heading = size === 'page' ? 'h1' : 'p';
    return (
        <div role="alert" className={frame}>
            <Heading className={size === 'page' ? 'text-xl' : 'font-semibold'}>
                {missing ? 'That is not here' : t('That could not be loaded.')}
            </Heading>
            <p className="mt-1 text-muted">
                {missing ? (gone ?? 'It is in none of your schools, or it has been removed.') : problem(of.error, t)}
            </p>
            {!missing && (
                <p className="mt-3">
                    <Button large={size === 'page'} disabled={of.isFetching} onClick={() => void of.refetch()}>
                        {of.isFetching ? t('Trying…') : t('Try again')}
                    </Button>
                </p>
            )}
            {way && <p className="mt-3">{way}</p>}
        </div>
    );
}
