import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, ApiError, data } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';

/** The page of one of the section's students: to look at, nothing to press. */
export function AsStudentPage({ school }: { school: School }) {
    const { id = '' } = useParams();
    const navigate = useNavigate();
    const [person, setPerson] = useState('');
    const back = () => void navigate(`/s/${school.code}/sections/${id}`);
    useKey('Escape', 'Back to the section', back);
    const asked = useQuery({
        queryKey: ['as-student', id, person],
        queryFn: () =>
            data(
                api.POST('/api/sections/{section}/as-student', {
                    params: { path: { section: id } },
                    body: person ? { person } : {},
                }),
            ),
        // Each look is recorded: one look, one entry.
        staleTime: Infinity,
        refetchOnWindowFocus: false,
        retry: false,
    });
    const view = asked.data;
    if (!view && asked.error instanceof ApiError && [404, 422].includes(asked.error.status))
        return (
            <Empty title="There is no student to look as" action={<Button onClick={back}>Back to the section</Button>}>
                Nobody is in this section now.
            </Empty>
        );
    if (!view) return <Instead of={asked} what="the page of a student" />;
    return (
        <div className="page">
            <div className="flex flex-wrap items-center justify-between gap-4 border-b border-ink bg-tint px-6 py-3">
                <p role="status">
                    <b>You are looking, not signed in.</b> This is the page of {view.givenName}. Nothing can be changed
                    here; that you looked is in the Ledger.
                </p>
                <div className="flex items-center gap-3">
                    <Choice
                        label="As"
                        value={view.id}
                        onChange={setPerson}
                        options={view.students.map((s) => ({ value: s.id, label: s.name }))}
                    />
                    <Button onClick={back}>Back to the section</Button>
                </div>
            </div>
            <div className="min-h-0 flex-1 overflow-auto py-6">
                <div className="mx-auto min-h-[640px] w-[390px] max-w-full border border-rule px-5 py-8">
                    <p className="mb-8 border-b border-ink pb-2 font-serif font-semibold">{view.school}</p>
                    <h1 className="mb-5 text-2xl leading-tight">Hello, {view.givenName}</h1>
                    <h2 className="mb-1 text-lg">Your sections</h2>
                    <ul>
                        {view.sections.map((s) => (
                            <li key={s.name} className="border-b border-rule py-3">
                                <span className="block text-lg">{s.name}</span>
                                <span className="text-sm text-muted">{s.teachers.join(', ')}</span>
                            </li>
                        ))}
                    </ul>
                    <p className="mt-4 text-sm text-muted">
                        Your user name: <span className="font-mono text-ink">{view.userName}</span>
                    </p>
                </div>
            </div>
        </div>
    );
}
