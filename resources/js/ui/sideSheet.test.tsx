import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import { Dialog } from './Dialog';
import { SideSheet } from './SideSheet';
import { CRAMPED } from './useCramped';

afterEach(cleanup);

/** A window whose size is changed by what this gives back. */
function windowThat(cramped: boolean): (cramped: boolean) => void {
    const watching = new Set<() => void>();
    let now = cramped;
    vi.stubGlobal('matchMedia', (asked: string) => ({
        matches: asked === CRAMPED && now,
        addEventListener: (_: string, changed: () => void) => watching.add(changed),
        removeEventListener: (_: string, changed: () => void) => watching.delete(changed),
    }));
    return (next) =>
        act(() => {
            now = next;
            watching.forEach((changed) => changed());
        });
}

function shown(cramped: boolean, close = () => undefined) {
    const turn = windowThat(cramped);
    render(
        <>
            <SideSheet title="Noor Castell" subtitle="grade 3" onClose={close}>
                In no section.
                <Asks />
            </SideSheet>
        </>,
    );
    return turn;
}

function Asks() {
    const [open, setOpen] = useState(false);
    return (
        <>
            <button onClick={() => setOpen(true)}>Change</button>
            <Dialog open={open} onClose={() => setOpen(false)} title="Change Noor">
                <input aria-label="Given name" />
            </Dialog>
        </>
    );
}

it('lies beside the table where there is room, and over it where there is none', () => {
    shown(false);
    expect(screen.getByRole('complementary', { name: 'Noor Castell' }).textContent).toContain('grade 3');
    expect(screen.queryByRole('dialog')).toBeNull();
});

it('is a dialog that has the keyboard to itself in a small window', async () => {
    const close = vi.fn();
    shown(true, close);
    expect(screen.getByRole('dialog', { name: 'Noor Castell' }).textContent).toContain('In no section.');
    await userEvent.keyboard('{Escape}');
    expect(close).toHaveBeenCalledOnce();
});

it('changes its form with the window', () => {
    const turn = shown(false);
    turn(true);
    expect(screen.getByRole('dialog', { name: 'Noor Castell' })).toBeTruthy();
    turn(false);
    expect(screen.getByRole('complementary', { name: 'Noor Castell' })).toBeTruthy();
});

it.each([false, true])('leaves a dialog uppermost with what is typed in it, small at first: %s', async (small) => {
    const close = vi.fn();
    const turn = shown(small, close);
    await userEvent.click(screen.getByRole('button', { name: 'Change' }));
    await userEvent.type(screen.getByLabelText('Given name'), 'Nora');
    turn(!small);
    expect(screen.getByLabelText<HTMLInputElement>('Given name').value).toBe('Nora');
    await userEvent.keyboard('{Escape}');
    expect(screen.queryByLabelText('Given name')).toBeNull();
    expect(close).not.toHaveBeenCalled();
    const beside = screen.queryByRole('complementary', { name: 'Noor Castell' });
    expect(beside !== null).toBe(small);
    await userEvent.keyboard('{Escape}');
    expect(close).toHaveBeenCalledOnce();
});

it('means by a small window what the styles mean', () => {
    const styles = readFileSync(join(__dirname, '../app.css'), 'utf8');
    expect(styles).toContain(`@custom-variant cramped (@media ${CRAMPED});`);
});
