import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { sendFiles } from '@/api/files';
import { useKey } from '@/shell/keys';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { DataTable } from '@/ui/DataTable';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { Instead } from '@/ui/Instead';
import { PasteBox } from './PasteBox';
import { RecordBar, useRecord } from './RecordBar';

const STATES: Record<string, string> = {
    reading: 'being read',
    planned: 'ready to apply',
    unreadable: 'cannot be read',
    applying: 'being applied',
    applied: 'applied',
};

interface Brought {
    files: File[];
    pasted?: { text: string; html: string };
}

/** Where lists come in, and those that have. */
export function IntakePage({ school }: { school: School }) {
    const navigate = useNavigate();
    const picker = useRef<HTMLInputElement>(null);
    const [over, setOver] = useState(false);
    const [pasting, setPasting] = useState(false);
    const asked = useQuery({
        queryKey: ['intakes', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/intakes', { params: { path: { school: school.id } } })),
    });
    const page = asked.data;
    const record = useRecord(school);
    const upload = useAct(
        ({ files, pasted }: Brought) => {
            const form = new FormData();
            files.forEach((file) => form.append('files[]', file));
            if (pasted) {
                form.append('text', pasted.text);
                form.append('html', pasted.html);
            }
            return sendFiles<Schemas['IntakeDetail']>(`/api/schools/${school.id}/intakes`, form);
        },
        {
            stale: [['intakes', school.id]],
            then: (made) => void navigate(`/s/${school.code}/intake/${made.id}`),
        },
    );
    const [what, setWhat] = useState('');
    const busy = upload.busy ? what : '';
    const error = upload.error && `${what}: ${upload.error}`;
    const bring = (files: File[], pasted?: Brought['pasted']) => {
        if (files.length === 0 && !pasted) return;
        setWhat(files.map((f) => f.name).join(', ') || 'what you pasted');
        upload.run({ files, ...(pasted ? { pasted } : {}) });
        // The same file can be chosen again.
        if (picker.current) picker.current.value = '';
    };
    useKey('b', 'Bring a list in', () => picker.current?.click());
    useEffect(() => {
        const paste = (event: ClipboardEvent) => {
            if (
                event.target instanceof HTMLInputElement ||
                event.target instanceof HTMLTextAreaElement ||
                !event.clipboardData
            )
                return;
            const files = [...event.clipboardData.files];
            const text = event.clipboardData.getData('text/plain');
            if (files.length > 0) bring(files);
            else if (text.trim() !== '') bring([], { text, html: event.clipboardData.getData('text/html') });
        };
        document.addEventListener('paste', paste);
        return () => document.removeEventListener('paste', paste);
    });
    // Both say what stands above the table: nothing is shown that they would push away. Once it is shown it stays.
    const [begun, setBegun] = useState(false);
    if (!begun && !asked.isPending && !record.isPending) setBegun(true);
    if (!begun) return <Instead of={{ ...asked, error: null }} what="the lists" />;
    return (
        <div className="page">
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
                        bring([...event.dataTransfer.files]);
                    }}
                    className={`mt-4 flex flex-wrap items-center justify-between gap-4 border border-dashed px-6 py-7 ${over ? 'border-marigold bg-tint' : 'border-ink/60'}`}
                >
                    <div>
                        <p role="status" className="font-serif text-lg font-semibold">
                            {busy ? `Reading ${busy}` : 'Drop lists here, or paste one'}
                        </p>
                        <p className="mt-1 max-w-xl text-sm text-muted">
                            Students, guardians, staff, sections or enrollments: spreadsheets, text, tables of a
                            document or PDF, a OneRoster export. Several files together are one intake. Cells copied
                            from a spreadsheet can be pasted with Ctrl+V.{' '}
                            {page &&
                                `Up to ${page.mostStudents.toLocaleString('en')} students and ${page.mostMegabytes} MB at a time. `}
                            Nothing is changed until you have seen the plan.
                        </p>
                    </div>
                    <input
                        ref={picker}
                        type="file"
                        accept=".xlsx,.xls,.ods,.csv,.tsv,.txt,.docx,.pdf,.zip,.html"
                        aria-label="The list"
                        className="sr-only"
                        tabIndex={-1}
                        multiple
                        onChange={(event) => bring([...(event.target.files ?? [])])}
                    />
                    <div className="flex gap-3">
                        <Button className="min-h-10" disabled={busy !== ''} onClick={() => setPasting(true)}>
                            Paste a list
                        </Button>
                        <Button
                            kind="primary"
                            className="min-h-10"
                            disabled={busy !== ''}
                            onClick={() => picker.current?.click()}
                        >
                            Choose files
                        </Button>
                    </div>
                </div>
                <RecordBar school={school} />
                {error && (
                    <p role="alert" className="mt-3 border-l-[3px] border-madder pl-3 text-sm text-madder">
                        {error}
                    </p>
                )}
            </div>
            <Dialog open={pasting} onClose={() => setPasting(false)} title="Paste a list" wide>
                <PasteBox
                    onBring={(pasted) => {
                        setPasting(false);
                        bring([], pasted);
                    }}
                />
            </Dialog>
            <DataTable
                label="Lists brought in"
                name="intakes"
                rows={page?.intakes ?? []}
                id={(i) => i.id}
                onOpen={(i) => void navigate(`/s/${school.code}/intake/${i.id}`)}
                empty={
                    !page ? (
                        <Instead of={asked} what="the lists" />
                    ) : (
                        <p className="px-6 py-6 text-muted">No lists yet. The demo folder has a few to try.</p>
                    )
                }
                columns={[
                    { id: 'title', label: 'List', value: (i) => i.title, width: 'minmax(200px, 3fr)' },
                    {
                        id: 'state',
                        label: 'State',
                        value: (i) => STATES[i.state] ?? i.state,
                        width: 'minmax(130px, 1fr)',
                    },
                    {
                        id: 'rows',
                        label: 'Rows',
                        value: (i) => i.rows,
                        cell: (i) => (i.rows ? i.rows.toLocaleString('en') : ''),
                        width: '80px',
                    },
                    {
                        id: 'open',
                        label: 'For you',
                        value: (i) => (i.verdicts.ask ?? 0) + (i.verdicts.cannot ?? 0),
                        cell: (i) => (i.state === 'planned' && i.verdicts.ask ? `${i.verdicts.ask} to answer` : ''),
                        width: '120px',
                    },
                    {
                        id: 'made',
                        label: 'Brought in',
                        value: (i) => i.madeAt,
                        cell: (i) => moment(i.madeAt),
                        width: '170px',
                    },
                ]}
            />
        </div>
    );
}
