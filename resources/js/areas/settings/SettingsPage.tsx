import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { ComponentProps } from 'react';
import { api, data } from '@/api/client';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { NamesPart } from './NamesPart';
import { NamingPart } from './NamingPart';
import { type Keep, PartForm, type Settings } from './PartForm';
import { QuietPart } from './QuietPart';
import { ProgramsPart } from './ProgramsPart';
import { RecordPart } from './RecordPart';
import { YearsPart } from './YearsPart';

const WAYS = [
    { value: 'card', label: 'card only' },
    { value: 'passphrase', label: 'card or its passphrase' },
    { value: 'own', label: 'own password' },
    { value: 'school', label: 'school sign-on' },
];

/** Everything a school decides for itself, in the order one comes to it. */
export function SettingsPage({ school }: { school: School }) {
    const queries = useQueryClient();
    const say = useNotice();
    const path = { params: { path: { school: school.id } } };
    const asked = useQuery({
        queryKey: ['settings', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/settings', path)),
    });
    const keep: Keep = async (body) => {
        const version = queries.getQueryData<Settings>(['settings', school.id])?.version;
        const kept = await data(
            api.POST('/api/schools/{school}/settings', {
                ...path,
                body: { ...body, ...(version === undefined ? {} : { version }) },
            }),
        );
        queries.setQueryData(['settings', school.id], kept);
        say('Saved. You can undo this in the Ledger.');
        return kept;
    };
    const onStale = () => void queries.invalidateQueries({ queryKey: ['settings', school.id] });
    const settings = asked.data;
    if (!settings) return <Instead of={asked} what="the settings" />;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <h1 className="text-2xl">Settings</h1>
            <p className="mb-4 text-sm text-muted">
                Of {settings.name}. Each part is saved by its own button and can be undone in the Ledger, but for keys
                of other programs and the school’s record.
            </p>
            <div className="max-w-4xl">
                <SchoolPart settings={settings} school={school} keep={keep} onStale={onStale} />
                <YearsPart settings={settings} school={school} />
                <SignInPart settings={settings} keep={keep} onStale={onStale} />
                <NamesPart settings={settings} keep={keep} onStale={onStale} />
                <DoorPart settings={settings} keep={keep} onStale={onStale} />
                <StaffPart settings={settings} keep={keep} onStale={onStale} />
                <GuardiansPart settings={settings} keep={keep} onStale={onStale} />
                <QuietPart settings={settings} keep={keep} onStale={onStale} />
                <RecordPart school={school} />
                <ProgramsPart school={school} />
                <KeepingPart settings={settings} keep={keep} onStale={onStale} />
                <NamingPart settings={settings} school={school} keep={keep} onStale={onStale} />
            </div>
        </div>
    );
}

interface PartProps {
    settings: Settings;
    keep: Keep;
    onStale: () => void;
}

function SchoolPart({ settings, school, keep, onStale }: PartProps & { school: School }) {
    const grades = settings.allGrades.map((g) => ({ value: g.code, label: g.short }));
    return (
        <PartForm
            title="School"
            about={`Code ${school.code}. Mail domains tell a colleague’s address from a private one.`}
            button="Save school details"
            kept={{
                name: settings.name,
                lowest_grade: settings.lowestGrade,
                highest_grade: settings.highestGrade,
                mail_domains: settings.mailDomains.join(', '),
                time_zone: settings.timeZone,
                country: settings.country,
                day_opens: settings.dayOpens,
                day_closes: settings.dayCloses,
            }}
            body={(draft) => ({ ...draft, mail_domains: draft.mail_domains.split(/[\s,;]+/).filter(Boolean) })}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <div className="grid gap-4 sm:grid-cols-2">
                    <Field label="Name" required maxLength={120} {...form.field('name')} />
                    <Field
                        label="Mail domains"
                        {...form.field('mail_domains')}
                        hint="The part after the @; separate several with commas."
                    />
                    <div className="grid grid-cols-2 gap-4">
                        <Choice stacked label="Lowest grade" {...form.choice('lowest_grade')} options={grades} />
                        <Choice stacked label="Highest grade" {...form.choice('highest_grade')} options={grades} />
                        {form.at('highest_grade') && (
                            <p role="alert" className="col-span-2 text-sm text-madder">
                                {form.at('highest_grade')}
                            </p>
                        )}
                    </div>
                    <div className="grid grid-cols-[1fr_70px] gap-4">
                        <div>
                            <Field label="Time zone" list="zones" {...form.field('time_zone')} />
                            <datalist id="zones">
                                {settings.timeZones.map((z) => (
                                    <option key={z} value={z} />
                                ))}
                            </datalist>
                        </div>
                        <Field label="Country" maxLength={2} {...form.field('country')} />
                    </div>
                    <div className="grid grid-cols-2 gap-4">
                        <Field label="School day from" type="time" required {...form.field('day_opens')} />
                        <Field label="to" type="time" required {...form.field('day_closes')} />
                    </div>
                </div>
            )}
        </PartForm>
    );
}

function SignInPart({ settings, keep, onStale }: PartProps) {
    return (
        <PartForm
            title="Signing in"
            about="By grade. The square on a card goes on working whatever the way; what the way does not take is not printed on new cards."
            button="Save sign-in settings"
            kept={{
                ways: Object.fromEntries(settings.ways.map((w) => [w.grade, w.way])) as Record<string, string>,
                stay_days_own: String(settings.stayDaysOwn),
                stay_days_shared: String(settings.stayDaysShared),
            }}
            body={(draft) => ({
                ways: draft.ways,
                stay_days_own: Number(draft.stay_days_own),
                stay_days_shared: Number(draft.stay_days_shared),
            })}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <div className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-3">
                        {settings.ways.map((w) => (
                            <Choice
                                key={w.grade}
                                stacked
                                label={`Grade ${w.label}`}
                                value={form.values.ways[w.grade] ?? 'passphrase'}
                                onChange={(value) => form.set('ways', { ...form.values.ways, [w.grade]: value })}
                                options={WAYS}
                            />
                        ))}
                    </div>
                    <div className="grid gap-4 sm:grid-cols-2">
                        <Field
                            label="Stay signed in on a device of one’s own, days"
                            inputMode="numeric"
                            pattern="[0-9]*"
                            required
                            {...form.field('stay_days_own')}
                            hint="0: not offered."
                        />
                        <Field
                            label="Stay signed in on a shared device, days"
                            inputMode="numeric"
                            pattern="[0-9]*"
                            required
                            {...form.field('stay_days_shared')}
                            hint="0: not offered, which is safest."
                        />
                    </div>
                </>
            )}
        </PartForm>
    );
}

function DoorPart({ settings, keep, onStale }: PartProps) {
    return (
        <PartForm
            title="At the door"
            about={`With ${settings.liveCodes.toLocaleString('en')} codes open in the district and ${settings.triesPerDay.toLocaleString('en')} wrong tries a day for one person, codes have ${settings.codeLength} symbols and a check symbol: somebody who guesses all day hits one once in ${Math.round(1 / settings.guessPerDay).toLocaleString('en')} days.`}
            button="Save join rules"
            kept={{
                newcomer_check: settings.newcomerCheck,
                newcomer_mail: settings.newcomerMail,
                under_13: settings.under13,
            }}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <Choice
                        stacked
                        label="What shows that somebody is the student on the list"
                        {...form.choice('newcomer_check')}
                        options={[
                            { value: 'birth_date', label: 'their birth date' },
                            { value: 'number', label: 'their student number' },
                            { value: 'none', label: 'nothing: the list is not offered, newcomers wait for approval' },
                        ]}
                    />
                    <Choice
                        stacked
                        label="Newcomers under 13 who are not on the list"
                        {...form.choice('under_13')}
                        options={[
                            { value: 'approve', label: 'wait for approval in any case' },
                            { value: 'listed', label: 'get no account by themselves' },
                            { value: 'allow', label: 'are treated as all others' },
                        ]}
                    />
                    <Tick
                        label="Ask newcomers for a mail address; they may leave it empty"
                        {...form.check('newcomer_mail')}
                    />
                </>
            )}
        </PartForm>
    );
}

function StaffPart({ settings, keep, onStale }: PartProps) {
    return (
        <PartForm
            title="Staff"
            about="Staff come by a list or by invitation into a section. What each role may do is shown beside the staff of every section."
            button="Save staff rules"
            kept={{ outside_staff: settings.outsideStaff, second_factor: settings.secondFactor }}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <Tick
                        label="Co-teachers from outside may be invited, with addresses of other domains"
                        {...form.check('outside_staff')}
                    />
                    <Choice
                        stacked
                        label="Two-step sign-in: an app code as well as the password"
                        {...form.choice('second_factor')}
                        options={[
                            { value: 'optional', label: 'anyone who wants it' },
                            { value: 'coordinators', label: 'coordinators must have it' },
                            { value: 'staff', label: 'all staff must have it' },
                        ]}
                    />
                </>
            )}
        </PartForm>
    );
}

function GuardiansPart({ settings, keep, onStale }: PartProps) {
    return (
        <PartForm
            title="Guardians"
            about="A guardian counts as on record when their address or number is in your list beside the child. A family letter or a name alone connects nobody."
            button="Save rules for guardians"
            kept={{ guardians_in: settings.guardiansIn, remind_guardians: settings.remindGuardians }}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <Choice
                        stacked
                        label="Somebody whose confirmed address or number is on record with the child"
                        {...form.choice('guardians_in')}
                        options={[
                            { value: 'at_once', label: 'is connected at once' },
                            { value: 'check', label: 'waits until you have looked' },
                        ]}
                    />
                    <Tick
                        label="Remind those who have not answered after a week, once"
                        {...form.check('remind_guardians')}
                    />
                </>
            )}
        </PartForm>
    );
}

function KeepingPart({ settings, keep, onStale }: PartProps) {
    return (
        <PartForm
            title="How long things are kept"
            about="Every night what is past its time is cleared away; the Ledger says what. What can be undone is kept for as long as it can."
            button="Save how long things are kept"
            kept={{
                keep_askings_days: String(settings.keepAskingsDays),
                keep_lists_days: String(settings.keepListsDays),
                keep_messages_days: String(settings.keepMessagesDays),
                keep_ledger_days: String(settings.keepLedgerDays),
            }}
            body={(draft) => ({
                keep_askings_days: Number(draft.keep_askings_days),
                keep_lists_days: Number(draft.keep_lists_days),
                keep_messages_days: Number(draft.keep_messages_days),
                keep_ledger_days: Number(draft.keep_ledger_days),
            })}
            keep={keep}
            onStale={onStale}
        >
            {(form) => (
                <>
                    <Field
                        label="Requests that were turned away, in days"
                        type="number"
                        min={15}
                        className="max-w-96"
                        {...form.field('keep_askings_days')}
                    />
                    <Field
                        label="Files of lists brought in, in days"
                        hint="What a list did stays in the Ledger; a list that waits for so long is discarded."
                        type="number"
                        min={15}
                        className="max-w-96"
                        {...form.field('keep_lists_days')}
                    />
                    <Field
                        label="Messages in the Mailroom, in days"
                        type="number"
                        min={15}
                        className="max-w-96"
                        {...form.field('keep_messages_days')}
                    />
                    <Field
                        label="Details in the Ledger, in days"
                        hint="Afterwards an entry says when, who and how much, and no name. Until then a merge can be undone."
                        type="number"
                        min={15}
                        className="max-w-96"
                        {...form.field('keep_ledger_days')}
                    />
                    <p className="text-sm text-muted">
                        Logs of the server are kept for {settings.keepLogsDays} days; that is set where it runs.
                    </p>
                </>
            )}
        </PartForm>
    );
}

function Tick({ label, ...box }: { label: string } & ComponentProps<'input'>) {
    return (
        <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" className="size-4 accent-ink" {...box} />
            {label}
        </label>
    );
}
