import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { useSentForm } from '@/ui/useSentForm';
import { Part } from './PartForm';

type SchoolRecord = Schemas['RecordView'];

/** The school's record: the system its lists come from, asked by OneRoster. */
export function RecordPart({ school }: { school: School }) {
    const params = { path: { school: school.id } };
    const asked = useQuery({
        queryKey: ['record', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/record', { params })),
    });
    const record = asked.data;
    return (
        <Part
            title="The school’s record"
            about="The system that keeps who goes to the school. Lists come from it by OneRoster 1.2, each as a plan you look at; at night only inside the limits you set."
        >
            {!record ? (
                <Instead of={asked} what="how the record is asked" size="part" />
            ) : record.hosts.length === 0 ? (
                <p className="text-sm text-muted">
                    This installation may ask no other system. Whoever runs it names those it may ask in
                    VANTREL_RECORD_HOSTS.
                </p>
            ) : (
                <RecordForm key={String(record.there)} record={record} school={school} />
            )}
        </Part>
    );
}

function RecordForm({ record, school }: { record: SchoolRecord; school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const [forgetting, setForgetting] = useState(false);
    const params = { path: { school: school.id } };
    const form = useSentForm({
        start: {
            base_url: record.baseUrl,
            token_url: record.tokenUrl,
            client_id: record.clientId,
            client_secret: '',
            nightly: record.nightly,
            most_new: String(record.mostNew),
            most_changed: String(record.mostChanged),
        },
        send: ({ client_secret, most_new, most_changed, ...rest }) =>
            data(
                api.POST('/api/schools/{school}/record', {
                    params,
                    body: {
                        ...rest,
                        ...(client_secret ? { client_secret } : {}),
                        most_new: Number(most_new),
                        most_changed: Number(most_changed),
                    },
                }),
            ),
        stale: [],
        home: 'base_url',
        forget: ['client_secret'],
        then: (kept: SchoolRecord) => {
            queries.setQueryData(['record', school.id], kept);
            say('The record answers, and is kept.');
        },
    });
    const forget = useAct(() => data(api.DELETE('/api/schools/{school}/record', { params })), {
        stale: [],
        then: (kept: SchoolRecord) => {
            queries.setQueryData(['record', school.id], kept);
            say('The record is asked no more. What came from it stays.');
        },
        failed: (said) => say(said, { bad: true }),
    });
    return (
        <form className="flex flex-col gap-4" onSubmit={form.submit}>
            <Field
                label="Address"
                type="url"
                required
                hint={`Ends in /ims/oneroster/rostering/v1p2. This installation may ask ${record.hosts.join(', ')}.`}
                {...form.field('base_url')}
            />
            <Field label="Token address" type="url" required {...form.field('token_url')} />
            <div className="grid gap-4 sm:grid-cols-2">
                <Field label="Client id" required autoComplete="off" {...form.field('client_id')} />
                <Field
                    label="Client secret"
                    type="password"
                    autoComplete="off"
                    required={!record.there}
                    hint={record.there ? 'Leave it empty to keep the one there is.' : undefined}
                    {...form.field('client_secret')}
                />
            </div>
            <label className="flex items-center gap-2 text-sm">
                <input type="checkbox" className="accent-ink" {...form.check('nightly')} />
                Bring in what has changed every night, with nobody looking
            </label>
            <div className="grid gap-4 sm:grid-cols-2">
                <Field label="At most so many new students a night" type="number" min={0} {...form.field('most_new')} />
                <Field
                    label="At most so many changed students a night"
                    type="number"
                    min={0}
                    hint="Beyond that the list waits in Intake."
                    {...form.field('most_changed')}
                />
            </div>
            {form.error && (
                <p role="alert" className="text-sm text-madder">
                    {form.error}
                </p>
            )}
            <div className="flex gap-2">
                <Button type="submit" disabled={form.busy}>
                    {form.busy ? 'Asking it…' : 'Save the record'}
                </Button>
                {record.there &&
                    (forgetting ? (
                        <>
                            <Button kind="primary" disabled={forget.busy} onClick={() => forget.run()}>
                                Forget it now
                            </Button>
                            <Button onClick={() => setForgetting(false)}>Keep</Button>
                        </>
                    ) : (
                        <Button onClick={() => setForgetting(true)}>Forget the record</Button>
                    ))}
            </div>
        </form>
    );
}
