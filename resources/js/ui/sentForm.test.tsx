import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { ApiError } from '@/api/client';
import { show } from '@/testing/page';
import { Field } from './Field';
import { useSentForm } from './useSentForm';

type Wish = { name: string; secret: string };

function Form({ send, onDone }: { send: (wish: Wish) => Promise<unknown>; onDone?: (wish: Wish) => void }) {
    const form = useSentForm<Wish>({
        start: { name: 'Ada', secret: '' },
        send,
        home: 'name',
        forget: ['secret'],
        then: (_, wish) => onDone?.(wish),
    });
    return (
        <form onSubmit={form.submit}>
            <Field label="Name" {...form.field('name')} />
            <Field label="Secret" {...form.field('secret')} />
            <p role="alert">{form.error}</p>
            <button disabled={form.busy}>Send</button>
        </form>
    );
}

const refused = (fields: Record<string, string[]>) =>
    Promise.reject(new ApiError(422, 'No', 'That cannot be.', fields));
const send = () => userEvent.click(screen.getByRole('button', { name: 'Send' }));

describe('a form that is sent as a whole', () => {
    it('sends what stands in its fields, once, and forgets secrets', async () => {
        let answer = () => {};
        const sent = vi.fn(() => new Promise<void>((resolve) => (answer = resolve)));
        const done = vi.fn();
        show(<Form send={sent} onDone={done} />);
        await userEvent.type(screen.getByLabelText('Name'), ' Quill');
        await userEvent.type(screen.getByLabelText('Secret'), 'tern');
        await userEvent.dblClick(screen.getByRole('button', { name: 'Send' }));
        expect(sent.mock.calls).toEqual([[{ name: 'Ada Quill', secret: 'tern' }]]);
        answer();
        await vi.waitFor(() => expect(done).toHaveBeenCalledWith({ name: 'Ada Quill', secret: 'tern' }));
        expect(screen.getByLabelText('Secret')).toHaveProperty('value', '');
        expect(screen.getByLabelText('Name')).toHaveProperty('value', 'Ada Quill');
    });

    it('says a refusal at the field it names, which gets the focus, until it is typed in', async () => {
        show(<Form send={() => refused({ secret: ['That cannot be.'] })} />);
        await userEvent.type(screen.getByLabelText('Secret'), 'tern');
        await send();
        const secret = await screen.findByLabelText('Secret');
        await vi.waitFor(() => expect(secret.getAttribute('aria-invalid')).toBe('true'));
        expect(document.activeElement).toBe(secret);
        const note = document.getElementById(secret.getAttribute('aria-describedby') ?? '');
        expect(note?.textContent).toBe('That cannot be.');
        await userEvent.type(secret, 'x');
        await vi.waitFor(() => expect(secret.getAttribute('aria-invalid')).toBeNull());
    });

    it('says what names no field of it at home', async () => {
        show(<Form send={() => refused({ elsewhere: ['no'] })} />);
        await send();
        await vi.waitFor(() => expect(screen.getByLabelText('Name').getAttribute('aria-invalid')).toBe('true'));
    });

    it('says a dead network beside the form, where it has no home', async () => {
        function Homeless() {
            const form = useSentForm({ start: { name: '' }, send: () => Promise.reject(new TypeError('gone')) });
            return (
                <form onSubmit={form.submit}>
                    <Field label="Name" {...form.field('name')} />
                    <p role="alert">{form.error}</p>
                    <button>Send</button>
                </form>
            );
        }
        show(<Homeless />);
        await send();
        await vi.waitFor(() => expect(screen.getByRole('alert').textContent).toContain('does not answer'));
        expect(screen.getByLabelText('Name').getAttribute('aria-invalid')).toBeNull();
    });
});
