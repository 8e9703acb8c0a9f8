import { useState } from 'react';
import { type ActOptions, useAct } from '@/api/act';
import { openPrint, type Print } from '@/api/prints';
import { Progress } from '@/ui/Progress';

/** A print that is being set, with how far it is. */
export function usePrint<W = void>(
    begin: (wish: W) => Promise<Print>,
    { stale = [], then, ...rest }: ActOptions<W, void> = {},
) {
    const [print, setPrint] = useState<Print | null>(null);
    const act = useAct((wish: W) => openPrint(() => begin(wish), setPrint).finally(() => setPrint(null)), {
        ...rest,
        stale: [...stale, ['prints']],
        ...(then ? { then } : {}),
    });
    return {
        ...act,
        progress: print && (
            <Progress
                label={print.state === 'waiting' ? 'Waiting for its turn' : 'Setting the pages'}
                done={print.done}
                total={print.total}
            />
        ),
    };
}
