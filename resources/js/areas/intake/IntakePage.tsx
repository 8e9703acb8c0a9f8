import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, csrfToken, data, problemOf, type Schemas, sentence } from '@/api/client';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { moment } from '@/ui/dates';

const STATES: Record<string, string> = {
    reading: 'being read',
    planned: 'waits to be applied',
    unreadable: 'cannot be read',
    applying: 'being applied',
    applied: 'applied',
};

export function IntakePage({ school }: { school: School }) {
    const navigate = useNavigate();
    const queries = useQueryClient();
    const picker = useRef<HTMLInputElement>(null);
    const [over, setOver] = useState(false);
    const [busy, setBusy] = useState('');
    const [error, setError] = useState('');
    const { data: page } = useQuery({
        queryKey: ['imports', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/imports', { params: { path: { school: school.id } } })),
    });
    const bring = async (file: File | undefined) => {
        if (!file) return;
        setBusy(file.name);
        setError('');
        try {
            const form = new FormData();
            form.append('file', file);
            const response = await fetch(`/api/schools/${school.id}/imports`, {
                method: 'POST',
                body: form,
                headers: { Accept: 'application/json', 'X-XSRF-TOKEN': csrfToken() },
            });
            if (!response.ok) throw await problemOf(response);
            const made = (await response.json()) as Schemas['ImportDetail'];
            await queries.invalidateQueries({ queryKey: ['imports', school.id] });
            void navigate(`/s/${school.code}/intake/${made.id}`);
        } catch (e) {
            setError(`${file.name}: ${sentence(e)}`);
        } finally {
            setBusy('');
            if (picker.current) picker.current.value = '';
        }
    };
    useKey('b', 'Bring a list in', () => picker.current?.click());
    return (
        <div className="flex min-h-0 flex-1 flex-col">
            <div className="px-6 py-4">
                <h1 className="text-2xl">Intake</h1>
                <div
                    onDragOver={(event) => {
                        event.preventDefault();
                        setOver(true);
                    }}
                    onDragLeave={() => setOver(false)}
                    onDrop={(event) => {
                        event.preventDefault();
                        setOver(false);
                        void bring(event.dataTransfer.files[0]);
                    }}
                    className={`mt-4 flex flex-wrap items-center justify-between gap-4 border border-dashed px-6 py-7 ${over ? 'border-marigold bg-tint' : 'border-ink/50'}`}
                >
                    <div>
                        <p className="font-serif text-lg font-semibold">
                            {busy ? `Reading ${busy}` : 'Drop a list of students here'}
                        </p>
                        <p className="mt-1 max-w-xl text-sm text-muted">
                            .xlsx or .csv: names, and whatever else there is of number, birth date, grade, homeroom, section,
                            e-mail and guardians. The header may stand anywhere near the top. Nothing is changed until you have
                            seen the plan.
                        </p>
                    </div>
                    <input
                        ref={picker}
                        type="file"
                        accept=".xlsx,.csv,.tsv,.txt"
                        aria-label="The list"
                        className="sr-only"
                        tabIndex={-1}
                        onChange={(event) => void bring(event.target.files?.[0])}
                    />
                    <Button kind="primary" className="min-h-10" disabled={busy !== ''} onClick={() => picker.current?.click()}>
                        Choose a file
                    </Button>
                </div>
                {error && (
                    <p role="alert" className="mt-3 border-l-[3px] border-madder pl-3 text-sm text-madder">
                        {error}
                    </p>
                )}
            </div>
            <DataTable
                label="Lists brought in"
                name="imports"
                rows={page?.imports ?? []}
                id={(i) => i.id}
                onOpen={(i) => void navigate(`/s/${school.code}/intake/${i.id}`)}
                empty={
                    <p className="px-6 py-6 text-muted">
                        No list has been brought in yet. The demo folder of the product holds a few to try.
                    </p>
                }
                columns={[
                    { id: 'title', label: 'List', value: (i) => i.title, width: 'minmax(200px, 3fr)' },
                    { id: 'state', label: 'State', value: (i) => STATES[i.state] ?? i.state, width: 'minmax(130px, 1fr)' },
                    {
                        id: 'rows',
                        label: 'Rows',
                        value: (i) => i.total,
                        cell: (i) => (i.total ? i.total.toLocaleString('en') : ''),
                        width: '80px',
                    },
                    {
                        id: 'open',
                        label: 'For you',
                        value: (i) => (i.verdicts.ask ?? 0) + (i.verdicts.cannot ?? 0),
                        cell: (i) => (i.state === 'planned' && i.verdicts.ask ? `${i.verdicts.ask} to answer` : ''),
                        width: '120px',
                    },
                    { id: 'made', label: 'Brought in', value: (i) => i.madeAt, cell: (i) => moment(i.madeAt), width: '170px' },
                ]}
            />
        </div>
    );
}
