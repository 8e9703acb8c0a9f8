import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';

const ADDITIONS = 'additions';

/** Whether the list only adds, or is everyone of the school, of a grade or of a section. */
export function WhoseList({
    school,
    list,
    onSet,
}: {
    school: School;
    list: Schemas['IntakeDetail'];
    onSet: (everyone: string | null) => void;
}) {
    const [picked, setPicked] = useState(list.everyone ?? ADDITIONS);
    const { data: page } = useQuery({
        queryKey: ['sections', school.id, ''],
        queryFn: () =>
            data(api.GET('/api/schools/{school}/sections', { params: { path: { school: school.id }, query: {} } })),
    });
    return (
        <div className="flex flex-col gap-4 text-sm">
            <Choice
                stacked
                label="How to read this list"
                value={picked}
                options={[
                    { value: ADDITIONS, label: 'It adds and updates: nobody who is missing is touched' },
                    { value: 'school', label: `It is everyone at ${school.name}` },
                    ...school.grades.map((g) => ({ value: `grade:${g.code}`, label: `It is everyone in ${g.label}` })),
                    ...(page?.sections ?? [])
                        .filter((s) => s.state === 'open')
                        .map((s) => ({ value: `section:${s.id}`, label: `It is everyone in ${s.name}` })),
                ]}
                onChange={setPicked}
            />
            {picked !== ADDITIONS && (
                <p className="border-l-[3px] border-marigold pl-3">
                    {picked.startsWith('section:')
                        ? 'Students in the section who are not in this list are taken out of it.'
                        : 'Active students there who are not in this list are marked as having left, and their sections end.'}{' '}
                    The plan shows every one of them before anything happens; it takes your password, and it can be
                    undone whole.
                </p>
            )}
            <div className="text-right">
                <Button kind="primary" onClick={() => onSet(picked === ADDITIONS ? null : picked)}>
                    Show the plan
                </Button>
            </div>
        </div>
    );
}
