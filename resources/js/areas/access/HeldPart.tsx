import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useTranslation } from 'react-i18next';
import { useAct } from '@/api/act';
import { api, data } from '@/api/client';
import { Button } from '@/ui/Button';
import { day } from '@/ui/dates';
import { Instead } from '@/ui/Instead';
import { LeafNote } from './Leaf';
import { useProblem } from './problem';

const KEY = ['own-held'];

/** What the school holds about one's children: asked for, looked at by the school, and fetched. */
export function HeldPart() {
    const { t } = useTranslation();
    const queries = useQueryClient();
    const asked = useQuery({ queryKey: KEY, queryFn: () => data(api.GET('/api/own/held')) });
    const ask = useAct((person: string) => data(api.POST('/api/own/held/{person}', { params: { path: { person } } })), {
        stale: [],
        words: useProblem(),
        then: (now): void => void queries.setQueryData(KEY, now),
    });
    const held = asked.data;
    if (!held) return <Instead of={asked} size="part" />;
    if (held.children.length === 0) return null;
    return (
        <section className="mb-9">
            <h2 className="mb-3 text-lg">{t('What the school holds about your children')}</h2>
            <p className="mb-4">
                {t('You can ask for all of it. The school looks at it first; of others it says nothing.')}
            </p>
            {ask.error && <LeafNote bad>{ask.error}</LeafNote>}
            <ul>
                {held.children.map((child) => (
                    <li key={child.id} className="border-b border-rule py-3">
                        <bdi className="mb-2 block">{child.name}</bdi>
                        {child.state === 'waiting' ? (
                            <span className="block min-h-12 pt-2 text-muted">
                                {t('Asked for. The school looks at it.')}
                            </span>
                        ) : child.state === 'given' ? (
                            <span className="flex flex-wrap gap-x-6">
                                {(['pdf', 'json'] as const).map((format) => (
                                    <a
                                        key={format}
                                        className="inline-flex min-h-12 items-center underline underline-offset-4"
                                        href={`/api/own/held/${child.id}?format=${format}`}
                                        download
                                    >
                                        {format === 'pdf' ? t('To read (PDF)') : t('For a program (JSON)')}
                                    </a>
                                ))}
                                <span className="block w-full text-sm text-muted">
                                    {t('until {{day}}', { day: child.until ? day(child.until) : '' })}
                                </span>
                            </span>
                        ) : (
                            <>
                                {child.state === 'refused' && (
                                    <p className="my-2 text-muted">
                                        {t('The school has not given it. Its office tells you why.')}
                                    </p>
                                )}
                                <Button
                                    large
                                    aria-label={t('Ask for it: {{name}}', { name: child.name })}
                                    disabled={ask.busy}
                                    onClick={() => ask.run(child.id)}
                                >
                                    {t('Ask for it')}
                                </Button>
                            </>
                        )}
                    </li>
                ))}
            </ul>
        </section>
    );
}
