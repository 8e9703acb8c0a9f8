import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { show } from '@/testing/page';
import { ApiError } from '@/api/client';
import { Field } from '@/ui/Field';
import { PartForm, type Settings } from './PartForm';

/** One part as a page has it: what the school has changes under it. */
function Part({ keep }: { keep: (body: Record<string, unknown>) => Promise<Settings> }) {
    const [kept, setKept] = useState({ name: 'Lanternfield', country: 'US' });
    const [asked, setAsked] = useState(0);
    return (
        <>
            <PartForm
                title="School"
                about=""
                button="Keep"
                kept={kept}
                keep={async (body) => {
                    const done = await keep(body);
                    setKept(body as typeof kept);
                    return done;
                }}
                onStale={() => setAsked(asked + 1)}
            >
                {(form) => (
                    <>
                        <Field label="Name" {...form.field('name')} />
                        <Field label="Country" {...form.field('country')} />
                    </>
                )}
            </PartForm>
            <button onClick={() => setKept({ name: 'Lanternfield East', country: 'CA' })}>elsewhere</button>
            <button onClick={() => setKept({ ...kept })}>the same again</button>
            <output>asked {asked} times</output>
        </>
    );
}

const value = (label: string) => screen.getByLabelText<HTMLInputElement>(label).value;

it('keeps what has been typed when the settings are asked for again or change elsewhere, and says so', async () => {
    show(<Part keep={() => Promise.resolve({} as Settings)} />);
    await userEvent.clear(screen.getByLabelText('Name'));
    await userEvent.type(screen.getByLabelText('Name'), 'Lanternfield West');
    await userEvent.click(screen.getByText('the same again'));
    expect(value('Name')).toBe('Lanternfield West');
    await userEvent.click(screen.getByText('elsewhere'));
    // What nobody has touched here follows.
    await waitFor(() => expect(value('Country')).toBe('CA'));
    expect(value('Name')).toBe('Lanternfield West');
    expect(screen.getByText(/name is now “Lanternfield East”/)).toBeTruthy();
    await userEvent.click(screen.getByText('Keep'));
    await waitFor(() => expect(screen.queryByText(/is now/)).toBeNull());
    // Kept: from here on nothing of it counts as touched.
    await userEvent.click(screen.getByText('elsewhere'));
    await waitFor(() => expect(value('Name')).toBe('Lanternfield East'));
});

it('asks for the settings anew where they have changed since, and keeps what was typed', async () => {
    const stale = new ApiError(409, 'Changed since you looked', 'Somebody has changed the settings.');
    show(<Part keep={() => Promise.reject(stale)} />);
    await userEvent.type(screen.getByLabelText('Name'), ' West');
    await userEvent.click(screen.getByText('Keep'));
    expect(await screen.findByText('asked 1 times')).toBeTruthy();
    expect(screen.getByText('Somebody has changed the settings.')).toBeTruthy();
    await userEvent.click(screen.getByText('elsewhere'));
    await waitFor(() => expect(value('Country')).toBe('CA'));
    expect(value('Name')).toBe('Lanternfield West');
    expect(screen.getByText('Somebody has changed the settings.')).toBeTruthy();
});
