import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, ApiError, data, sentence } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { DataTable } from '@/ui/DataTable';
import { Dialog } from '@/ui/Dialog';
import { Empty } from '@/ui/Empty';
import { Field } from '@/ui/Field';
import { State } from '@/ui/State';
import { Strip } from './Strip';

export function SectionsPage({ school }: { school: School }) {
    const navigate = useNavigate();
    const [search, setSearch] = useSearchParams();
    const [making, setMaking] = useState(false);
    const state = search.get('state') ?? '';
    const year = search.get('year') ?? '';
    const current = year === '' || school.yearId === year;
    const { data: page } = useQuery({
        queryKey: ['sections', school.id, year],
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/sections', {
                    params: { path: { school: school.id }, query: year ? { year } : {} },
                }),
            ),
    });
    useKey('n', 'Make a section', () => setMaking(true), school.coordinates && current);
    if (!page) return null;
    const sections = page.sections.filter((s) =>
        state === 'no_lead' ? !s.lead && s.state === 'open' : state === '' || s.state === state,
    );
    const archived = page.sections.filter((s) => s.state === 'archived').length;
    return (
        <div className="flex min-h-0 flex-1 flex-col">
            <div className="flex flex-wrap items-end justify-between gap-3 border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Sections</h1>
                    <p className="text-sm text-muted">
                        {page.sections.length - archived} open{archived > 0 && `, ${archived} archived`}
                    </p>
                </div>
                <div className="flex items-center gap-4">
                    <Choice
                        label="Show"
                        value={state}
                        onChange={(value) =>
                            setSearch({ ...(year ? { year } : {}), ...(value ? { state: value } : {}) }, { replace: true })
                        }
                        options={[
                            { value: '', label: 'all' },
                            { value: 'open', label: 'open' },
                            { value: 'no_lead', label: 'without a lead' },
                            { value: 'archived', label: 'archived' },
                        ]}
                    />
                    {school.coordinates && current && <Button onClick={() => setMaking(true)}>Make a section</Button>}
                </div>
            </div>
            <DataTable
                label="Sections"
                name="sections"
                rows={sections}
                id={(s) => s.id}
                onOpen={(s) => void navigate(`/s/${school.code}/sections/${s.id}`)}
                empty={
                    <Empty
                        title={page.sections.length === 0 ? 'No sections this year' : 'No section fits'}
                        action={school.coordinates && <Button onClick={() => setMaking(true)}>Make a section</Button>}
                    >
                        {school.coordinates
                            ? 'Sections come with a list of students that names them, or one by one.'
                            : 'You see the sections you lead, co-teach or assist in. Ask your coordinator to invite you.'}
                    </Empty>
                }
                foot={`${sections.length} sections, ${sections.reduce((n, s) => n + s.students, 0).toLocaleString('en')} places taken`}
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
                    { id: 'students', label: 'Students', value: (s) => s.students, width: '80px' },
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
                            ) : s.hasCode ? (
                                'open'
                            ) : (
                                <span className="text-muted">none</span>
                            ),
                        width: '106px',
                    },
                ]}
            />
            <MakeSection school={school} open={making} onClose={() => setMaking(false)} />
        </div>
    );
}

function MakeSection({ school, open, onClose }: { school: School; open: boolean; onClose: () => void }) {
    const navigate = useNavigate();
    const queries = useQueryClient();
    const [name, setName] = useState('');
    const [kind, setKind] = useState<'homeroom' | 'class'>('class');
    const [grade, setGrade] = useState('');
    const [error, setError] = useState<{ field: string; text: string } | null>(null);
    const make = async () => {
        setError(null);
        try {
            const made = await data(
                api.POST('/api/schools/{school}/sections', {
                    params: { path: { school: school.id } },
                    body: { name, kind, ...(grade ? { grade } : {}) },
                }),
            );
            await queries.invalidateQueries({ queryKey: ['sections', school.id] });
            onClose();
            void navigate(`/s/${school.code}/sections/${made.id}`);
        } catch (e) {
            setError({ field: e instanceof ApiError ? (Object.keys(e.fields)[0] ?? 'name') : 'name', text: sentence(e) });
        }
    };
    return (
        <Dialog open={open} onClose={onClose} title="Make a section">
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void make();
                }}
            >
                <Field
                    label="Name"
                    autoFocus
                    required
                    maxLength={80}
                    value={name}
                    onChange={(event) => setName(event.target.value)}
                    error={error?.field === 'name' ? error.text : undefined}
                    hint="As the class is called: Marine science 8A, 3 Heron."
                />
                <Choice
                    label="Kind"
                    value={kind}
                    onChange={(value) => setKind(value as typeof kind)}
                    options={[
                        { value: 'class', label: 'class' },
                        { value: 'homeroom', label: 'homeroom' },
                    ]}
                />
                <Field
                    label="Grade"
                    className="w-32"
                    value={grade}
                    onChange={(event) => setGrade(event.target.value)}
                    error={error?.field === 'grade' ? error.text : undefined}
                />
                <div className="flex justify-end gap-3">
                    <Button onClick={onClose}>Leave it</Button>
                    <Button kind="primary" type="submit">
                        Make the section with a code
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
