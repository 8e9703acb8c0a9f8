import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { State } from '@/ui/State';
import { many } from '@/ui/words';
import { ManyDialog } from './ManyDialog';
import { OwnInvitations } from './OwnInvitations';
import { RenameDialog } from './RenameDialog';
import { SectionForm, wishBody } from './SectionForm';
import { Strip } from './Strip';

export function SectionsPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const [search, setSearch] = useSearchParams();
    const [making, setMaking] = useState<'one' | 'many' | 'rename' | null>(null);
    const queries = useQueryClient();
    const state = search.get('state') ?? '';
    const year = search.get('year') ?? '';
    const current = year === '' || school.yearId === year;
    const past = school.years.find((y) => y.id === year)?.state === 'closed';
    const asked = useQuery({
        queryKey: ['sections', school.id, year],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/sections', {
                    params: { path: { school: school.id }, query: year ? { year } : {} },
                }),
            ),
    });
    useKey('n', 'Make a section', () => setMaking('one'), school.coordinates && current);
    const page = asked.data;
    if (!page) return <Instead of={asked} what="the sections" />;
    const sections = page.sections.filter((s) =>
        state === 'no_lead'
            ? !s.lead && s.state === 'open'
            : state === 'waiting'
              ? s.waiting > 0
              : state === 'clash'
                ? s.clashes > 0
                : state === 'full'
                  ? s.seats !== null && s.students > s.seats
                  : state === '' || s.state === state,
    );
    const archived = page.sections.filter((s) => s.state === 'archived').length;
    return (
        <div className="page">
            <div className="flex flex-wrap items-end justify-between gap-3 border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Sections</h1>
                    <p className="text-sm text-muted">
                        {page.sections.length - archived} open{archived > 0 && `, ${archived} archived`}
                    </p>
                </div>
                <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
                    <Choice
                        label="Show"
                        value={state}
                        onChange={(value) =>
                            setSearch(
                                { ...(year ? { year } : {}), ...(value ? { state: value } : {}) },
                                { replace: true },
                            )
                        }
                        options={[
                            { value: '', label: 'all' },
                            { value: 'open', label: 'open' },
                            { value: 'no_lead', label: 'without a lead' },
                            { value: 'waiting', label: 'with newcomers at the door' },
                            { value: 'clash', label: 'with clashing periods' },
                            { value: 'full', label: 'with too few seats' },
                            { value: 'archived', label: 'archived' },
                        ]}
                    />
                    {school.coordinates && !past && (
                        <>
                            <Button onClick={() => setMaking('rename')}>Rename</Button>
                            <Button onClick={() => setMaking('many')}>Make many</Button>
                            {current && <Button onClick={() => setMaking('one')}>Make a section</Button>}
                        </>
                    )}
                </div>
            </div>
            <OwnInvitations />
            <DataTable
                label="Sections"
                name="sections"
                rows={sections}
                id={(s) => s.id}
                onOpen={(s) => void navigate(`/s/${school.code}/sections/${s.id}`)}
                empty={
                    <Empty
                        title={page.sections.length === 0 ? 'No sections this year' : 'No section fits'}
                        action={
                            school.coordinates &&
                            !past && <Button onClick={() => setMaking('many')}>Make sections</Button>
                        }
                    >
                        {school.coordinates
                            ? 'Sections come with a list of students that names them, or one by one.'
                            : 'You see the sections you lead, co-teach or assist in. Ask your coordinator to invite you.'}
                    </Empty>
                }
                foot={`${many(sections.length, 'section')}, ${many(
                    sections.reduce((n, s) => n + s.students, 0),
                    'place',
                )} taken`}
                columns={[
                    { id: 'name', label: 'Section', value: (s) => s.name, width: 'minmax(140px, 1.6fr)' },
                    { id: 'kind', label: 'Kind', value: (s) => s.kind, width: '96px' },
                    { id: 'grade', label: 'Grade', value: (s) => s.grade ?? '', width: '62px' },
                    {
                        id: 'lead',
                        label: 'Lead',
                        value: (s) => s.lead,
                        cell: (s) => s.lead || <State name="ask" word="nobody" />,
                        width: 'minmax(130px, 1.6fr)',
                    },
                    {
                        id: 'period',
                        label: 'Period',
                        value: (s) => s.period,
                        cell: (s) => (
                            <>
                                {s.period}
                                {s.clashes > 0 && <State name="ask" word={many(s.clashes, 'clash', 'clashes')} />}
                            </>
                        ),
                        width: '84px',
                    },
                    {
                        id: 'students',
                        label: 'Students',
                        value: (s) => s.students,
                        cell: (s) => (s.seats === null ? s.students : `${s.students} of ${s.seats}`),
                        width: '80px',
                    },
                    {
                        id: 'coverage',
                        label: 'Signed in / card',
                        value: (s) => (s.students ? s.signedIn / s.students : 0),
                        cell: (s) => <Strip total={s.students} signedIn={s.signedIn} withCard={s.withCard} />,
                        width: 'minmax(150px, 1.4fr)',
                    },
                    {
                        id: 'code',
                        label: 'Code',
                        value: (s) => (s.hasCode ? 'open' : ''),
                        cell: (s) =>
                            s.state === 'archived' ? (
                                <State name="archived" />
                            ) : s.waiting > 0 ? (
                                <State name="ask" word={`${s.waiting} at the door`} />
                            ) : s.hasCode ? (
                                'open'
                            ) : (
                                <span className="text-muted">none</span>
                            ),
                        width: '118px',
                    },
                ]}
            />
            {making === 'one' && (
                <SectionForm
                    title="Make a section"
                    button="Make the section with a code"
                    start={{ name: '', kind: 'class', grade: '', period: '', seats: '' }}
                    onClose={() => setMaking(null)}
                    onSave={async (wish) => {
                        const made = await data(
                            api.POST('/api/schools/{school}/sections', {
                                params: { path: { school: school.id } },
                                body: wishBody(wish),
                            }),
                        );
                        await queries.invalidateQueries({ queryKey: ['sections', school.id] });
                        void navigate(`/s/${school.code}/sections/${made.id}`);
                    }}
                />
            )}
            {making === 'rename' && <RenameDialog school={school} year={year} onClose={() => setMaking(null)} />}
            {making === 'many' && <ManyDialog school={school} onClose={() => setMaking(null)} />}
        </div>
    );
}
