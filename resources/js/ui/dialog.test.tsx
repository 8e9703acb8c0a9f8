import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { afterEach, expect, it } from 'vitest';
import { Dialog } from './Dialog';
import { SideSheet } from './SideSheet';

afterEach(cleanup);

/** A page that opens a dialog, and a sheet beside it, from buttons; the second button goes when it is pressed. */
function Page() {
    const [open, setOpen] = useState<'' | 'dialog' | 'sheet'>('');
    const [gone, setGone] = useState(false);
    return (
        <>
            <main id="sheet" tabIndex={-1}>
                <button onClick={() => setOpen('dialog')}>Open</button>
                {!gone && <button onClick={() => (setOpen('dialog'), setGone(true))}>Open and go</button>}
                <button onClick={() => setOpen('sheet')}>Beside</button>
                {open === 'dialog' && (
                    <Dialog open onClose={() => setOpen('')} title="A note">
                        <input aria-label="Note" />
                    </Dialog>
                )}
                {open === 'sheet' && (
                    <SideSheet title="Ada" onClose={() => setOpen('')}>
                        <button>Inside</button>
                    </SideSheet>
                )}
            </main>
        </>
    );
}

it('can be closed by its own button, and gives the keyboard back to where it was', async () => {
    render(<Page />);
    await userEvent.click(screen.getByRole('button', { name: 'Open' }));
    await userEvent.click(screen.getByRole('button', { name: 'Close' }));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Open' })));
});

it('gives it to the page where what opened it is gone', async () => {
    render(<Page />);
    await userEvent.click(screen.getByRole('button', { name: 'Open and go' }));
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    await waitFor(() => expect(document.activeElement?.id).toBe('sheet'));
});

it('keeps what has been typed when somebody clicks beside it', async () => {
    render(<Page />);
    await userEvent.click(screen.getByRole('button', { name: 'Open' }));
    await userEvent.type(screen.getByLabelText('Note'), 'half a sentence');
    fireEvent.pointerDown(document.body);
    fireEvent.click(document.body);
    expect(screen.getByLabelText<HTMLInputElement>('Note').value).toBe('half a sentence');
    await userEvent.keyboard('{Escape}');
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

it('gives the keyboard back when a sheet beside the page closes', async () => {
    render(<Page />);
    await userEvent.click(screen.getByRole('button', { name: 'Beside' }));
    screen.getByRole('button', { name: 'Inside' }).focus();
    await userEvent.click(screen.getByRole('button', { name: 'close' }));
    await waitFor(() =>
        expect(document.activeElement?.id === 'sheet' || document.activeElement?.textContent === 'Beside').toBe(true),
    );
});
