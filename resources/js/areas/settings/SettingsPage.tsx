import { useQuery, useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { api, ApiError, data, type Schemas, sentence } from '@/api/client';
import type { School } from '@/shell/session';
import { Button } from '@/ui/Button';
import { Choice } from '@/ui/Choice';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';
import { NamingPart } from './NamingPart';
import { YearsPart } from './YearsPart';

export type Settings = Schemas['Settings'];

/** What a part of the settings keeps: the fields it changes. Rejects with the field the server refuses. */
export type Keep = (body: Record<string, unknown>, done?: string) => Promise<{ field: string; text: string } | null>;

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
    const { data: settings } = useQuery({
        queryKey: ['settings', school.id],
        queryFn: () => data(api.GET('/api/schools/{school}/settings', path)),
    });
    const keep: Keep = async (body, done = 'Kept. The Ledger can undo it.') => {
        try {
            queries.setQueryData(
                ['settings', school.id],
                await data(api.POST('/api/schools/{school}/settings', { ...path, body })),
            );
            await queries.invalidateQueries({ queryKey: ['me'] });
            say(done);
            return null;
        } catch (e) {
            const field = e instanceof ApiError ? (Object.keys(e.fields)[0] ?? '') : '';
            if (field === '') say(sentence(e), { bad: true });
            return { field, text: sentence(e) };
        }
    };
    if (!settings) return null;
    return (
        <div className="min-h-0 flex-1 overflow-auto px-6 py-4">
            <h1 className="text-2xl">Settings</h1>
            <p className="mb-4 text-sm text-muted">
                Of {settings.name}. Each part is kept by its own button; every change is in the Ledger and can be undone.
            </p>
            <div className="max-w-4xl">
                <SchoolPart settings={settings} school={school} keep={keep} />
                <YearsPart settings={settings} school={school} />
                <SignInPart settings={settings} keep={keep} />
                <DoorPart settings={settings} keep={keep} />
                <StaffPart settings={settings} keep={keep} />
                <NamingPart settings={settings} school={school} keep={keep} />
            </div>
        </div>
    );
}

export function Part({ title, about, children }: { title: string; about: ReactNode; children: ReactNode }) {
    return (
        <section aria-label={title} className="grid gap-x-8 gap-y-3 border-t border-rule py-5 md:grid-cols-[220px_1fr]">
            <div>
                <h2 className="text-lg">{title}</h2>
                <p className="text-sm text-muted">{about}</p>
            </div>
            <div>{children}</div>
        </section>
    );
}

function SchoolPart({ settings, school, keep }: { settings: Settings; school: School; keep: Keep }) {
    const [name, setName] = useState(settings.name);
    const [low, setLow] = useState(settings.lowestGrade);
    const [high, setHigh] = useState(settings.highestGrade);
    const [domains, setDomains] = useState(settings.mailDomains.join(', '));
    const [zone, setZone] = useState(settings.timeZone);
    const [country, setCountry] = useState(settings.country);
    const [opens, setOpens] = useState(settings.dayOpens);
    const [closes, setCloses] = useState(settings.dayCloses);
    const [error, setError] = useState<{ field: string; text: string } | null>(null);
    const of = (field: string) => (error?.field === field ? error.text : undefined);
    const grades = ['PK', 'K', ...Array.from({ length: 13 }, (_, i) => String(i + 1))];
    const code = (short: string) => (short === 'K' ? 'KG' : short === 'PK' ? 'PK' : short.padStart(2, '0'));
    const options = grades.map((g) => ({ value: code(g), label: g }));
    return (
        <Part title="School" about={`Code ${school.code}. Mail domains tell a colleague’s address from a private one.`}>
            <form
                className="grid gap-4 sm:grid-cols-2"
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep({
                        name,
                        lowest_grade: low,
                        highest_grade: high,
                        mail_domains: domains.split(/[\s,;]+/).filter(Boolean),
                        time_zone: zone,
                        country,
                        day_opens: opens,
                        day_closes: closes,
                    }).then(setError);
                }}
            >
                <Field
                    label="Name"
                    required
                    maxLength={120}
                    value={name}
                    onChange={(e) => setName(e.target.value)}
                    error={of('name')}
                />
                <Field
                    label="Mail domains"
                    value={domains}
                    onChange={(e) => setDomains(e.target.value)}
                    error={of('mail_domains')}
                    hint="What stands after the @; several apart by commas."
                />
                <div className="grid grid-cols-2 gap-4">
                    <Choice stacked label="Lowest grade" value={low} onChange={setLow} options={options} />
                    <Choice stacked label="Highest grade" value={high} onChange={setHigh} options={options} />
                    {of('highest_grade') && <p className="col-span-2 text-sm text-madder">{of('highest_grade')}</p>}
                </div>
                <div className="grid grid-cols-[1fr_70px] gap-4">
                    <div>
                        <Field
                            label="Time zone"
                            list="zones"
                            value={zone}
                            onChange={(e) => setZone(e.target.value)}
                            error={of('time_zone')}
                        />
                        <datalist id="zones">
                            {settings.timeZones.map((z) => (
                                <option key={z} value={z} />
                            ))}
                        </datalist>
                    </div>
                    <Field
                        label="Country"
                        maxLength={2}
                        value={country}
                        onChange={(e) => setCountry(e.target.value)}
                        error={of('country')}
                    />
                </div>
                <div className="grid grid-cols-2 gap-4">
                    <Field
                        label="School day from"
                        type="time"
                        required
                        value={opens}
                        onChange={(e) => setOpens(e.target.value)}
                        error={of('day_opens')}
                    />
                    <Field
                        label="to"
                        type="time"
                        required
                        value={closes}
                        onChange={(e) => setCloses(e.target.value)}
                        error={of('day_closes')}
                    />
                </div>
                <div className="self-end">
                    <Button type="submit">Keep the school’s data</Button>
                </div>
            </form>
        </Part>
    );
}

function SignInPart({ settings, keep }: { settings: Settings; keep: Keep }) {
    const [ways, setWays] = useState(() => Object.fromEntries(settings.ways.map((w) => [w.grade, w.way])));
    const [shared, setShared] = useState(String(settings.stayDaysShared));
    const [own, setOwn] = useState(String(settings.stayDaysOwn));
    const [error, setError] = useState<{ field: string; text: string } | null>(null);
    return (
        <Part
            title="Signing in"
            about="By grade. The square on a card goes on working whatever the way; what the way does not take is not printed on new cards."
        >
            <form
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep({ ways, stay_days_shared: Number(shared), stay_days_own: Number(own) }).then(setError);
                }}
            >
                <div className="grid grid-cols-2 gap-x-6 gap-y-2 sm:grid-cols-3">
                    {settings.ways.map((w) => (
                        <Choice
                            key={w.grade}
                            stacked
                            label={`Grade ${w.label}`}
                            value={ways[w.grade] ?? 'passphrase'}
                            onChange={(value) => setWays({ ...ways, [w.grade]: value as typeof w.way })}
                            options={WAYS}
                        />
                    ))}
                </div>
                <div className="mt-4 grid gap-4 sm:grid-cols-2">
                    <Field
                        label="Stay signed in on a device of one’s own, days"
                        inputMode="numeric"
                        pattern="[0-9]*"
                        required
                        value={own}
                        onChange={(e) => setOwn(e.target.value)}
                        error={error?.field === 'stay_days_own' ? error.text : undefined}
                        hint="0: not offered."
                    />
                    <Field
                        label="Stay signed in on a shared device, days"
                        inputMode="numeric"
                        pattern="[0-9]*"
                        required
                        value={shared}
                        onChange={(e) => setShared(e.target.value)}
                        error={error?.field === 'stay_days_shared' ? error.text : undefined}
                        hint="0: not offered, which is safest."
                    />
                </div>
                <div className="mt-4">
                    <Button type="submit">Keep how students sign in</Button>
                </div>
            </form>
        </Part>
    );
}

function DoorPart({ settings, keep }: { settings: Settings; keep: Keep }) {
    const [check, setCheck] = useState(settings.newcomerCheck);
    const [mail, setMail] = useState(settings.newcomerMail);
    const [under, setUnder] = useState(settings.under13);
    return (
        <Part
            title="At the door"
            about={`With ${settings.liveCodes.toLocaleString('en')} codes open in the district and ${settings.triesPerDay} wrong tries a day for each address, codes have ${settings.codeLength} symbols and a check symbol: somebody who guesses all day hits one once in ${Math.round(1 / settings.guessPerDay).toLocaleString('en')} days.`}
        >
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep({ newcomer_check: check, newcomer_mail: mail, under_13: under });
                }}
            >
                <Choice
                    stacked
                    label="What shows that somebody is the student on the list"
                    value={check}
                    onChange={setCheck}
                    options={[
                        { value: 'birth_date', label: 'their birth date' },
                        { value: 'number', label: 'their student number' },
                        { value: 'none', label: 'nothing: the list is not offered, newcomers wait for approval' },
                    ]}
                />
                <Choice
                    stacked
                    label="Newcomers under 13 who are not on the list"
                    value={under}
                    onChange={setUnder}
                    options={[
                        { value: 'approve', label: 'wait for approval in any case' },
                        { value: 'listed', label: 'get no account by themselves' },
                        { value: 'allow', label: 'are treated as all others' },
                    ]}
                />
                <label className="flex items-center gap-2 text-sm">
                    <input
                        type="checkbox"
                        className="size-4 accent-ink"
                        checked={mail}
                        onChange={(e) => setMail(e.target.checked)}
                    />
                    Ask newcomers for a mail address; they may leave it empty
                </label>
                <div>
                    <Button type="submit">Keep the rules of the door</Button>
                </div>
            </form>
        </Part>
    );
}

function StaffPart({ settings, keep }: { settings: Settings; keep: Keep }) {
    const [outside, setOutside] = useState(settings.outsideStaff);
    const [factor, setFactor] = useState(settings.secondFactor);
    return (
        <Part
            title="Staff"
            about="Staff come by a list or by invitation into a section. What each role may do stands beside the staff of every section."
        >
            <form
                className="flex flex-col gap-4"
                onSubmit={(event) => {
                    event.preventDefault();
                    void keep({ outside_staff: outside, second_factor: factor });
                }}
            >
                <label className="flex items-center gap-2 text-sm">
                    <input
                        type="checkbox"
                        className="size-4 accent-ink"
                        checked={outside}
                        onChange={(e) => setOutside(e.target.checked)}
                    />
                    Co-teachers from outside may be invited, with addresses of other domains
                </label>
                <Choice
                    stacked
                    label="Second factor: a code of an app besides the password"
                    value={factor}
                    onChange={setFactor}
                    options={[
                        { value: 'optional', label: 'whoever wants it' },
                        { value: 'coordinators', label: 'coordinators must have it' },
                        { value: 'staff', label: 'all staff must have it' },
                    ]}
                />
                <div>
                    <Button type="submit">Keep the rules for staff</Button>
                </div>
            </form>
        </Part>
    );
}
