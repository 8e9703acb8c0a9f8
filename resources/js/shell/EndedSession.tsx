import { useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useEffect, useState } from 'react';
import { whenSessionEnds } from '@/api/client';
import type { Me } from './session';

const SignInAgain = lazy(() => import('./SignInAgain').then((shell) => ({ default: shell.SignInAgain })));

/** Notices that the session has ended: staff sign in again in place, everyone else begins anew. */
export function EndedSession() {
    const queries = useQueryClient();
    const [who, setWho] = useState<Me | null>(null);
    useEffect(() => {
        whenSessionEnds(() => {
            const me = queries.getQueryData<Me | null>(['me']);
            if (me?.kind === 'staff') setWho(me);
            else if (me) queries.setQueryData(['me'], null);
        });
        return () => whenSessionEnds(() => undefined);
    }, [queries]);
    const done = useCallback(() => setWho(null), []);
    if (!who) return null;
    return (
        <Suspense fallback={<div className="fixed inset-0 z-50 bg-paper" />}>
            <SignInAgain who={who} done={done} />
        </Suspense>
    );
}
