import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Dialog } from '@/ui/Dialog';
import { KeyScope, letLettersAct, useKey, useKeyList } from './keys';

function Pressed({ combo, run, repeats = false }: { combo: string; run: () => void; repeats?: boolean }) {
    useKey(combo, `does ${combo}`, run, true, { repeats });
    return null;
}

function List() {
    const keys = useKeyList();
    return (
        <button
            onClick={(event) =>
                (event.currentTarget.title = keys()
                    .map((k) => k.combo)
                    .join(' '))
            }
        >
            list
        </button>
    );
}

afterEach(cleanup);

describe('keys', () => {
    it('do what the page says, and sequences too', async () => {
        const [undo, go] = [vi.fn(), vi.fn()];
        render(
            <>
                <Pressed combo="u" run={undo} />
                <Pressed combo="g d" run={go} />
            </>,
        );
        await userEvent.keyboard('u');
        await userEvent.keyboard('gd');
        expect(undo).toHaveBeenCalledTimes(1);
        expect(go).toHaveBeenCalledTimes(1);
    });

    it('do nothing behind a dialog, which has its own', async () => {
        const [behind, apply, own] = [vi.fn(), vi.fn(), vi.fn()];
        const page = (open: boolean) => (
            <>
                <Pressed combo="u" run={behind} />
                <Pressed combo="Ctrl+Enter" run={apply} />
                <Pressed combo="g r" run={behind} />
                <Dialog open={open} onClose={() => undefined} title="In front">
                    <Pressed combo="x" run={own} />
                    <button>here</button>
                </Dialog>
            </>
        );
        const { rerender } = render(page(true));
        await userEvent.keyboard('u');
        await userEvent.keyboard('gr');
        await userEvent.keyboard('{Control>}{Enter}{/Control}');
        await userEvent.keyboard('x');
        expect(behind).not.toHaveBeenCalled();
        expect(apply).not.toHaveBeenCalled();
        expect(own).toHaveBeenCalledTimes(1);
        rerender(page(false));
        await userEvent.keyboard('ux');
        expect(behind).toHaveBeenCalledTimes(1);
        expect(own).toHaveBeenCalledTimes(1);
    });

    it('do nothing in a field, in an open menu or with Alt, and a letter with Ctrl is another key', async () => {
        const run = vi.fn();
        render(
            <>
                <Pressed combo="u" run={run} />
                <input aria-label="Name" />
                <div role="menu">
                    <button role="menuitem">Archive</button>
                </div>
            </>,
        );
        await userEvent.type(screen.getByLabelText('Name'), 'u');
        fireEvent.keyDown(screen.getByRole('menuitem'), { key: 'u' });
        fireEvent.keyDown(document.body, { key: 'u', altKey: true });
        fireEvent.keyDown(document.body, { key: 'u', ctrlKey: true });
        expect(run).not.toHaveBeenCalled();
    });

    it('held down act once, except those that move', () => {
        const [undo, next] = [vi.fn(), vi.fn()];
        render(
            <>
                <Pressed combo="u" run={undo} />
                <Pressed combo="j" run={next} repeats />
            </>,
        );
        for (let i = 0; i < 6; i++) {
            fireEvent.keyDown(document.body, { key: 'u', repeat: i > 0 });
            fireEvent.keyDown(document.body, { key: 'j', repeat: i > 0 });
        }
        expect(undo).toHaveBeenCalledTimes(1);
        expect(next).toHaveBeenCalledTimes(6);
    });

    it('leave Enter to the button it is pressed on', () => {
        const run = vi.fn();
        render(
            <>
                <Pressed combo="Enter" run={run} />
                <button>Open</button>
            </>,
        );
        fireEvent.keyDown(screen.getByRole('button'), { key: 'Enter' });
        expect(run).not.toHaveBeenCalled();
        fireEvent.keyDown(document.body, { key: 'Enter' });
        expect(run).toHaveBeenCalledTimes(1);
    });

    it('are listed for the page, not for what lies over it', async () => {
        render(
            <>
                <Pressed combo="u" run={() => undefined} />
                <KeyScope>
                    <Pressed combo="x" run={() => undefined} />
                </KeyScope>
                <List />
            </>,
        );
        await userEvent.click(screen.getByRole('button'));
        expect(screen.getByRole('button').title).toBe('u');
    });

    it('mean the same on every layout, with Caps Lock, and where a sign needs AltGr', () => {
        const [undo, next, wide] = [vi.fn(), vi.fn(), vi.fn()];
        render(
            <>
                <Pressed combo="u" run={undo} />
                <Pressed combo="]" run={next} />
                <Pressed combo="Ctrl+Enter" run={wide} />
            </>,
        );
        fireEvent.keyDown(window, { key: 'г', code: 'KeyU' });
        fireEvent.keyDown(window, { key: 'ع', code: 'KeyU' });
        fireEvent.keyDown(window, { key: 'U', code: 'KeyU' });
        expect(undo).toHaveBeenCalledTimes(3);
        fireEvent.keyDown(window, { key: 'U', code: 'KeyU', shiftKey: true });
        fireEvent.keyDown(window, { key: 'u', code: 'KeyU', altKey: true });
        expect(undo).toHaveBeenCalledTimes(3);
        fireEvent.keyDown(window, { key: ']', code: 'Digit9', altKey: true, ctrlKey: true });
        fireEvent.keyDown(window, { key: ']', code: 'Digit6', altKey: true });
        expect(next).toHaveBeenCalledTimes(2);
        fireEvent.keyDown(window, { key: 'Enter', ctrlKey: true });
        expect(wide).toHaveBeenCalledTimes(1);
    });

    it('can be switched off where they are single letters; what needs Ctrl and Escape goes on', async () => {
        const [undo, go, apply, close] = [vi.fn(), vi.fn(), vi.fn(), vi.fn()];
        render(
            <>
                <Pressed combo="u" run={undo} />
                <Pressed combo="g d" run={go} />
                <Pressed combo="Ctrl+Enter" run={apply} />
                <Pressed combo="Escape" run={close} />
            </>,
        );
        letLettersAct(false);
        await userEvent.keyboard('ugd');
        await userEvent.keyboard('{Control>}{Enter}{/Control}{Escape}');
        expect([undo, go, apply, close].map((f) => f.mock.calls.length)).toEqual([0, 0, 1, 1]);
        letLettersAct(true);
        await userEvent.keyboard('ugd');
        expect([undo, go].map((f) => f.mock.calls.length)).toEqual([1, 1]);
    });
});
