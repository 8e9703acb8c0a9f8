import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'react-router';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { DataTable } from '@/ui/DataTable';
import { moment } from '@/ui/dates';
import { Empty } from '@/ui/Empty';
import { Instead } from '@/ui/Instead';
import { SideSheet } from '@/ui/SideSheet';

/** All mail that left, as it left. */
export function MailroomPage({ school }: { school: School }) {
    const [search, setSearch] = useSearchParams();
    const open = search.get('message');
    const asked = useQuery({
        queryKey: ['messages', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/messages', { params: { path: { school: school.id } } })),
        refetchInterval: 5_000,
    });
    const page = asked.data;
    if (!page) return <Instead of={asked} what="the Mailroom" />;
    const message = page.messages.find((m) => m.id === open);
    return (
        <div className="page">
            <div className="border-b border-rule px-6 py-4">
                <div className="flex flex-wrap items-baseline gap-x-5">
                    <h1 className="text-2xl">Mailroom</h1>
                    <p className="text-sm text-muted">
                        every message as it went out; with the stand-in that ships, nothing leaves this machine
                    </p>
                </div>
            </div>
            <div className="split">
                <DataTable
                    label="Messages"
                    name="messages"
                    rows={page.messages}
                    id={(m) => m.id}
                    current={open}
                    onOpen={(m) => setSearch({ message: m.id }, { replace: true })}
                    empty={
                        <Empty title="No mail has gone out">
                            Invitations to colleagues appear here when they are sent.
                        </Empty>
                    }
                    columns={[
                        { id: 'to', label: 'To', value: (m) => m.to, width: 'minmax(180px, 1.4fr)' },
                        { id: 'subject', label: 'Subject', value: (m) => m.subject, width: 'minmax(180px, 2fr)' },
                        {
                            id: 'at',
                            label: 'Sent',
                            value: (m) => m.madeAt,
                            cell: (m) => moment(m.madeAt),
                            width: '170px',
                        },
                    ]}
                />
                {message && (
                    <SideSheet
                        title={message.subject}
                        subtitle={`to ${message.to}, ${moment(message.madeAt)}`}
                        onClose={() => setSearch({}, { replace: true })}
                    >
                        <div className="whitespace-pre-wrap break-words text-sm">
                            {message.text.split(/(https?:\/\/\S+)/).map((part, i) =>
                                part.startsWith('http') ? (
                                    <a key={i} href={part} className="underline underline-offset-4">
                                        {part}
                                    </a>
                                ) : (
                                    part
                                ),
                            )}
                        </div>
                    </SideSheet>
                )}
            </div>
        </div>
    );
}
