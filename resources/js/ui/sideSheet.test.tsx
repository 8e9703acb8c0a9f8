import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import { KeyProvider } from '@/shell/keys';
import { SideSheet } from './SideSheet';
import { CRAMPED } from './useCramped';

function shown(cramped: boolean, close = () => undefined) {
    vi.stubGlobal('matchMedia', (asked: string) => ({
        matches: asked === CRAMPED && cramped,
        addEventListener: () => undefined,
        removeEventListener: () => undefined,
    }));
    render(
        <KeyProvider>
            <SideSheet title="Noor Castell" subtitle="grade 3" onClose={close}>
                In no section.
            </SideSheet>
        </KeyProvider>,
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

it('means by a small window what the styles mean', () => {
    const styles = readFileSync(join(__dirname, '../app.css'), 'utf8');
    expect(styles).toContain(`@custom-variant cramped (@media ${CRAMPED});`);
});
