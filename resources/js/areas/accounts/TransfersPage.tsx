import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { EvidenceBars } from '@/ui/Evidence';
import { useNotice } from '@/ui/Notice';

type Line = Schemas['TransferLine'];

/** What schools ask of each other about students: those of this school to answer, and what this school has asked. */
export function TransfersPage({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const key = ['transfers', school.id];
    const look = useQuery({
        queryKey: key,
        queryFn: () => data(api.GET('/api/schools/{school}/transfers', { params: { path: { school: school.id } } })),
    });
    const page = look.data;
    const act = useAct(
        ({ line, what }: { line: Line; what: 'accept' | 'refuse' | 'withdraw' }) => {
            const params = { params: { path: { school: school.id, transfer: line.id } } };
            return data(
                what === 'accept'
                    ? api.POST('/api/schools/{school}/transfers/{transfer}/accept', params)
                    : what === 'refuse'
                      ? api.POST('/api/schools/{school}/transfers/{transfer}/refuse', params)
                      : api.POST('/api/schools/{school}/transfers/{transfer}/withdraw', params),
            );
        },
        {
            then: (now) => {
                queries.setQueryData(key, now);
                say(now.said);
            },
            failed: (said) => {
                say(said, { bad: true });
                void look.refetch();
            },
        },
    );
    const answer = (line: Line, what: 'accept' | 'refuse' | 'withdraw') => act.run({ line, what });
    const waiting = page?.requests.filter((r) => r.ours && r.state === 'waiting') ?? [];
    const asked = page?.requests.filter((r) => !r.ours && r.state === 'waiting') ?? [];
    const answered = page?.requests.filter((r) => r.state !== 'waiting') ?? [];
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <h1 className="text-2xl">Requests between schools</h1>
            <p className="mb-5 max-w-2xl text-sm text-muted">
                A list changes only its own school’s people. Where another school’s list means one of your students, it
                asks here; nothing of the student changes until you answer.
            </p>
            {!page ? (
                <Instead of={look} what="the requests" size="part" />
            ) : page.requests.length === 0 ? (
                <Empty title="Nobody has asked">
                    When another school brings in a list with one of your students, its request appears here, with what
                    the list says beside what you know.
                </Empty>
            ) : (
                <div className="max-w-3xl">
                    <Group title="To answer" empty="Nothing waits for you." lines={waiting}>
                        {(line) => (
                            <>
                                <p>
                                    <span className="font-semibold">{line.school}</span>{' '}
                                    {line.kind === 'transfer'
                                        ? 'asks for a transfer of'
                                        : 'asks to have, as well as you,'}{' '}
                                    <span className="font-semibold">{line.student}</span>
                                </p>
                                <p className="text-sm text-muted">
                                    Their list says: {line.said}
                                    {line.sections.length > 0 && `; into ${line.sections.join(', ')}`}.{' '}
                                    {`${line.askedBy}, `}
                                    {moment(line.askedAt)}
                                </p>
                                <div className="my-2 max-w-md">
                                    <EvidenceBars evidence={line.evidence} probability={line.probability} />
                                </div>
                                <p className="mb-3 text-sm text-muted">
                                    {line.kind === 'transfer'
                                        ? 'If you do, their sections here end today. Account and cards go on working there; guardians stay with the student.'
                                        : 'If you do, they stay here and come into the sections there too.'}
                                </p>
                                <div className="flex gap-2">
                                    <Button kind="primary" disabled={act.busy} onClick={() => answer(line, 'accept')}>
                                        {line.kind === 'transfer' ? 'Let them go' : 'Let them come there too'}
                                    </Button>
                                    <Button disabled={act.busy} onClick={() => answer(line, 'refuse')}>
                                        Turn down
                                    </Button>
                                </div>
                            </>
                        )}
                    </Group>
                    <Group title="Asked by this school" empty="" lines={asked}>
                        {(line) => (
                            <div className="flex items-start justify-between gap-4">
                                <p>
                                    {line.said}
                                    <span className="block text-sm text-muted">
                                        {line.school} has not answered yet. {line.askedBy}, {moment(line.askedAt)}
                                    </span>
                                </p>
                                <Button disabled={act.busy} onClick={() => answer(line, 'withdraw')}>
                                    Take back
                                </Button>
                            </div>
                        )}
                    </Group>
                    <Group title="Answered" empty="" lines={answered}>
                        {(line) => (
                            <p className="text-sm">
                                {line.ours ? line.student : line.said}: {STATES[line.state]}
                                <span className="text-muted">
                                    {' '}
                                    ({line.school}
                                    {line.answeredAt && `, ${moment(line.answeredAt)}`})
                                </span>
                            </p>
                        )}
                    </Group>
                </div>
            )}
        </div>
    );
}

const STATES: Record<string, string> = { accepted: 'accepted', refused: 'turned down', withdrawn: 'taken back' };

function Group({
    title,
    empty,
    lines,
    children,
}: {
    title: string;
    empty: string;
    lines: Line[];
    children: (line: Line) => React.ReactNode;
}) {
    if (lines.length === 0 && !empty) return null;
    return (
        <section className="mb-7" aria-label={title}>
            <h2 className="mb-1 border-b border-ink pb-1 text-lg">
                {title}
                {lines.length > 0 && <span className="text-muted"> {lines.length}</span>}
            </h2>
            {lines.length === 0 ? (
                <p className="py-2 text-sm text-muted">{empty}</p>
            ) : (
                <ul>
                    {lines.map((line) => (
                        <li key={line.id} className="border-b border-rule py-3">
                            {children(line)}
                        </li>
                    ))}
                </ul>
            )}
        </section>
    );
}
