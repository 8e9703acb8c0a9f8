import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { useNotice } from '@/ui/Notice';

interface Props {
    section: Schemas['SectionDetail'];
    onClose: () => void;
    onDone: () => Promise<unknown>;
}

/** Blank accounts made ahead, for students who turn up. */
export function MakeReserves({ section, onClose, onDone }: Props) {
    const say = useNotice();
    const [count, setCount] = useState('3');
    const make = useAct(
        () =>
            api.POST('/api/sections/{section}/reserves', {
                params: { path: { section: section.id } },
                body: { count: Number(count) },
            }),
        {
            stale: [],
            then: async () => {
                say('They stand at the end of the roster. Print their cards, and name each when its student turns up.');
                await onDone();
                onClose();
            },
        },
    );
    return (
        <Dialog open onClose={onClose} title="Reserve accounts">
            <p className="mb-4 text-sm text-muted">
                Blank accounts with cards of their own. A student who turns up gets a card at once; the name is given
                later, and user name and card stay.
            </p>
            <form
                onSubmit={(event) => {
                    event.preventDefault();
                    make.run();
                }}
            >
                <Field
                    label="How many"
                    className="w-32"
                    inputMode="numeric"
                    pattern="[0-9]*"
                    required
                    autoFocus
                    value={count}
                    onChange={(event) => setCount(event.target.value)}
                    error={make.error || undefined}
                />
                <div className="mt-5 flex justify-end gap-3">
                    <Button onClick={onClose}>Leave it</Button>
                    <Button kind="primary" type="submit" disabled={make.busy}>
                        Make them
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}

/** The owner of a reserve account, once there is one. */
export function ClaimReserve({ section, reserve, onClose, onDone }: Props & { reserve: Schemas['RosterLine'] }) {
    const say = useNotice();
    const [person, setPerson] = useState({ given_name: '', family_name: '', birth_date: '', number: '' });
    const claim = useAct(
        () =>
            api.POST('/api/sections/{section}/reserves/{person}', {
                params: { path: { section: section.id, person: reserve.id } },
                body: {
                    given_name: person.given_name,
                    family_name: person.family_name,
                    ...(person.birth_date ? { birth_date: person.birth_date } : {}),
                    ...(person.number ? { number: person.number } : {}),
                },
            }),
        {
            stale: [],
            home: 'given_name',
            then: async () => {
                say(`${reserve.name} is ${person.given_name}’s now. The card goes on working.`);
                await onDone();
                onClose();
            },
        },
    );
    const field = (
        name: keyof typeof person,
        label: string,
        more: { type?: string; required?: boolean; autoFocus?: boolean } = {},
    ) => (
        <Field
            label={label}
            value={person[name]}
            onChange={(event) => setPerson({ ...person, [name]: event.target.value })}
            error={claim.field(name) || undefined}
            {...more}
        />
    );
    return (
        <Dialog open onClose={onClose} title={`${reserve.name} of ${section.name}: whose is it?`}>
            <form
                onSubmit={(event) => {
                    event.preventDefault();
                    claim.run();
                }}
            >
                <div className="grid grid-cols-2 gap-4">
                    {field('given_name', 'First name', { required: true, autoFocus: true })}
                    {field('family_name', 'Last name', { required: true })}
                    {field('birth_date', 'Birth date', { type: 'date' })}
                    {field('number', 'Student number')}
                </div>
                {claim.error && !Object.keys(person).some((name) => claim.field(name)) && (
                    <p className="mt-2 text-sm text-madder">{claim.error}</p>
                )}
                <p className="mt-4 text-sm text-muted">
                    User name <span className="font-mono text-ink">{reserve.userName}</span> and card stay. If the
                    student is on the list already, the Look-alikes will show it.
                </p>
                <div className="mt-5 flex justify-end gap-3">
                    <Button onClick={onClose}>Leave it blank</Button>
                    <Button kind="primary" type="submit" disabled={claim.busy}>
                        Give it to them
                    </Button>
                </div>
            </form>
        </Dialog>
    );
}
