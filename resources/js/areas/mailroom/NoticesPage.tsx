import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { day, moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';
import { GradebookDialog } from './GradebookDialog';
import { HandedInDialog } from './HandedInDialog';
import { LetterDialog } from './LetterDialog';
import { NoticeForm } from './NoticeForm';
import { WorkInOneLine } from './WorkInOneLine';

type Line = Schemas['NoticeLine'];

const KIND: Record<Line['kind'], string> = { notice: 'notice', date: 'date', work: 'work due' };

/** What a section, or the whole school, says to students and families. */
export function NoticesPage({ school }: { school: School }) {
    const { id } = useParams();
    const queries = useQueryClient();
    const say = useNotice();
    const key = ['notices', id ?? school.id];
    const [editing, setEditing] = useState<Line | 'new' | null>(null);
    const [writing, setWriting] = useState(false);
    const [bringing, setBringing] = useState(false);
    const [handing, setHanding] = useState<Line | null>(null);
    const [named, setNamed] = useState<string | null>(null);
    const section = useQuery({
        queryKey: ['section', id, ''],
        queryFn: () => data(api.GET('/api/sections/{section}', { params: { path: { section: id ?? '' }, query: {} } })),
        enabled: id !== undefined,
    });
    const asked = useQuery({
        queryKey: key,
        queryFn: () =>
            data(
                id
                    ? api.GET('/api/sections/{section}/notices', { params: { path: { section: id } } })
                    : api.GET('/api/schools/{school}/notices', { params: { path: { school: school.id } } }),
            ),
    });
    const readers = useQuery({
        queryKey: ['notice-readers', named],
        queryFn: () =>
            data(
                api.GET('/api/sections/{section}/notices/{notice}/readers', {
                    params: { path: { section: id ?? '', notice: named ?? '' } },
                }),
            ),
        enabled: named !== null && id !== undefined,
    });
    const settled = (page: Schemas['NoticePage']) => {
        queries.setQueryData(key, page);
        setEditing(null);
        setHanding(null);
        setBringing(false);
        say(page.said);
    };
    const withdraw = useAct(
        (notice: string) =>
            data(
                id
                    ? api.DELETE('/api/sections/{section}/notices/{notice}', {
                          params: { path: { section: id, notice } },
                      })
                    : api.DELETE('/api/schools/{school}/notices/{notice}', {
                          params: { path: { school: school.id, notice } },
                      }),
            ),
        { stale: [], then: settled, failed: (said) => say(said, { bad: true }) },
    );
    const powers = section.data?.powers ?? [];
    const writes = id === undefined || powers.includes('write_notices');
    const leads = powers.includes('hand_over_lead');
    const place = id === undefined ? school.name : (section.data?.name ?? '');
    const page = asked.data;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <p className="text-sm">
                <Link
                    className="underline decoration-rule underline-offset-4"
                    to={`/s/${school.code}/${id ? `sections/${id}` : 'mailroom'}`}
                >
                    {id ? `Back to ${place || 'the section'}` : 'Back to the Mailroom'}
                </Link>
            </p>
            <div className="flex max-w-3xl flex-wrap items-baseline justify-between gap-x-5 gap-y-2">
                <h1 className="text-2xl">Notices, dates{id ? ' and work' : ''}</h1>
                {writes && (
                    <span className="flex flex-wrap gap-3">
                        <Button onClick={() => setBringing(true)}>From a gradebook…</Button>
                        {id && <Button onClick={() => setWriting(true)}>Write a letter to families…</Button>}
                        <Button kind="primary" onClick={() => setEditing('new')}>
                            Write one
                        </Button>
                    </span>
                )}
            </div>
            <p className="mb-5 text-sm text-muted">
                {id
                    ? 'Students of the section and their guardians read them on their own page.'
                    : 'Every student and every guardian of the school reads them on their own page.'}
            </p>
            {id && writes && <WorkInOneLine section={id} onDone={settled} />}
            {!page ? (
                <Instead of={asked} what="what has been written" size="part" />
            ) : page.notices.length === 0 ? (
                <Empty title="Nothing has been written">
                    {id
                        ? 'A notice to read, a date to keep, or work that is due.'
                        : 'A notice to read, or a date to keep, for the whole school.'}
                </Empty>
            ) : (
                <ul className="max-w-3xl">
                    {page.notices.map((notice) => (
                        <li key={notice.id} className="border-b border-rule py-3">
                            <div className="flex flex-wrap items-baseline justify-between gap-x-4">
                                <h2 className="text-lg">{notice.title}</h2>
                                <span className="text-sm text-muted">
                                    {KIND[notice.kind]}
                                    {notice.day && ` ${day(notice.day)}`}
                                </span>
                            </div>
                            {notice.body && <p className="whitespace-pre-wrap text-sm">{notice.body}</p>}
                            <p className="mt-1 text-xs text-muted">
                                {[
                                    [notice.by, moment(notice.madeAt)].filter(Boolean).join(', '),
                                    notice.guardiansOnly && 'for guardians only',
                                    Object.keys(notice.titles).length > 0 &&
                                        many(Object.keys(notice.titles).length, 'further language'),
                                    `seen by ${String(notice.seen)}`,
                                    notice.goneThrough &&
                                        (notice.missing > 0
                                            ? `missing from ${String(notice.missing)}`
                                            : 'missing from nobody'),
                                ]
                                    .filter(Boolean)
                                    .join('; ')}
                            </p>
                            <div className="mt-2 flex flex-wrap gap-2">
                                {writes && notice.kind === 'work' && (
                                    <Button onClick={() => setHanding(notice)}>Who has handed it in…</Button>
                                )}
                                {writes && <Button onClick={() => setEditing(notice)}>Change…</Button>}
                                {writes && (
                                    <Button disabled={withdraw.busy} onClick={() => withdraw.run(notice.id)}>
                                        Withdraw
                                    </Button>
                                )}
                                {leads && notice.seen > 0 && (
                                    <Button onClick={() => setNamed(named === notice.id ? null : notice.id)}>
                                        Who has seen it
                                    </Button>
                                )}
                            </div>
                            {named === notice.id && (
                                <p className="mt-2 text-sm">
                                    {readers.data ? (
                                        readers.data.names.join(', ')
                                    ) : (
                                        <Instead of={readers} what="who has seen it" size="part" />
                                    )}
                                </p>
                            )}
                        </li>
                    ))}
                </ul>
            )}
            {editing && (
                <NoticeForm
                    key={editing === 'new' ? 'new' : editing.id}
                    school={school}
                    section={id}
                    notice={editing === 'new' ? null : editing}
                    onClose={() => setEditing(null)}
                    onDone={settled}
                />
            )}
            {bringing && (
                <GradebookDialog
                    at={id ? `/api/sections/${id}/notices` : `/api/schools/${school.id}/notices`}
                    onClose={() => setBringing(false)}
                    onDone={settled}
                />
            )}
            {writing && id && (
                <LetterDialog
                    school={school}
                    section={id}
                    onClose={() => setWriting(false)}
                    onDone={({ said }) => {
                        setWriting(false);
                        say(said);
                    }}
                />
            )}
            {handing && id && (
                <HandedInDialog section={id} notice={handing} onClose={() => setHanding(null)} onDone={settled} />
            )}
        </div>
    );
}
