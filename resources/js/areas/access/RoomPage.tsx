import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslation } from 'react-i18next';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Leaf, LeafNote } from './Leaf';
import { ROOM } from './room';
import { PictureKeys } from './PictureKeys';
import { problem, useProblem } from './problem';
import { useToken } from './token';

/** Where the tablet goes back to when a student is done. */

/**
 * The name list a room pass opens on a shared device: tap your name, and your pictures where the room asks for them.
 */
export function RoomPage() {
    const { t } = useTranslation();
    const token = useToken();
    const queries = useQueryClient();
    const navigate = useNavigate();
    const [chosen, setChosen] = useState<Schemas['RoomName'] | null>(null);
    // Pictures that were refused are tapped anew.
    const [round, setRound] = useState(0);
    const { data: room, error: shut } = useQuery({
        queryKey: ['room', token],
        queryFn: () => data(api.POST('/api/room', { body: { token } })),
        refetchInterval: 30_000,
        retry: false,
    });
    const enter = useAct(
        ({ key, pictures = [] }: { key: string; pictures?: string[] }) =>
            data(api.POST('/api/room/enter', { body: { token, key, ...(pictures.length > 0 ? { pictures } : {}) } })),
        {
            stale: [],
            words: useProblem(),
            failed: () => setRound((n) => n + 1),
            then: (me) => {
                sessionStorage.setItem(ROOM, token);
                queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'me' });
                queries.setQueryData(['me'], me);
                void navigate('/', { replace: true });
            },
        },
    );
    if (shut)
        return (
            <Leaf title={t('The list is closed')}>
                <LeafNote bad>{problem(shut, t)}</LeafNote>
                <Button large onClick={() => void navigate('/')}>
                    {t('Sign in')}
                </Button>
            </Leaf>
        );
    if (!room) return null;
    if (chosen)
        return (
            <Leaf
                title={
                    chosen.chosen
                        ? t('{{name}}: tap your three pictures', { name: chosen.name })
                        : t('{{name}}: choose three pictures', { name: chosen.name })
                }
                above={room.section}
            >
                {enter.error && <LeafNote bad>{enter.error}</LeafNote>}
                {!chosen.chosen && (
                    <p className="mb-4">{t('Remember them and their order: you tap them each time.')}</p>
                )}
                <PictureKeys
                    key={round}
                    choice={room.choice}
                    onDone={(pictures) => enter.run({ key: chosen.key, pictures })}
                />
                <div className="mt-6">
                    <Button large kind="quiet" onClick={() => (setChosen(null), enter.clear())}>
                        {t('That is not me')}
                    </Button>
                </div>
            </Leaf>
        );
    return (
        <Leaf wide title={t('Tap your name')} above={room.section}>
            {enter.error && <LeafNote bad>{enter.error}</LeafNote>}
            {room.names.length === 0 && <p className="text-muted">{t('Nobody is in this section yet.')}</p>}
            <ul className="grid grid-cols-2 gap-3 sm:grid-cols-3">
                {room.names.map((name) => (
                    <li key={name.key}>
                        <Button
                            large
                            className="w-full !min-h-14"
                            disabled={enter.busy}
                            onClick={() => (room.pictures ? setChosen(name) : enter.run({ key: name.key }))}
                        >
                            <bdi>{name.name}</bdi>
                        </Button>
                    </li>
                ))}
            </ul>
        </Leaf>
    );
}
