import { fireEvent, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import { show } from '@/testing/page';
import { DataTable, type Order } from './DataTable';

interface Row {
    id: string;
    name: string;
    seats: number;
}

const rows = (n: number): Row[] =>
    Array.from({ length: n }, (_, i) => ({
        id: `r${i}`,
        name: `Section ${String(i).padStart(3, '0')}`,
        seats: (i * 7) % 30,
    }));

const columns = [
    { id: 'name', label: 'Name', value: (r: Row) => r.name, width: '1fr' },
    { id: 'seats', label: 'Seats', value: (r: Row) => r.seats, width: '70px' },
    { id: 'extra', label: 'Id', value: (r: Row) => r.id, width: '70px', extra: true },
];

// Nothing is laid out here: the box is as high as this says.
beforeAll(() => {
    Object.defineProperty(HTMLElement.prototype, 'clientHeight', { configurable: true, get: () => 340 });
    Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 800 });
    Element.prototype.scrollTo = () => undefined;
});

function Table({ n, onOpen, name = 'test' }: { n: number; onOpen?: (r: Row) => void; name?: string }) {
    const [selected, setSelected] = useState<ReadonlySet<string>>(new Set());
    return (
        <>
            <DataTable
                label="Sections"
                name={name}
                columns={columns}
                rows={rows(n)}
                id={(r) => r.id}
                selected={selected}
                onSelect={setSelected}
                {...(onOpen ? { onOpen } : {})}
                empty="Nobody fits."
            />
            <output data-testid="selected">{[...selected].join(' ')}</output>
        </>
    );
}

const names = () =>
    screen
        .getAllByRole('row')
        .slice(1)
        .map((row) => within(row).getAllByRole('gridcell')[1]?.textContent);
const selected = () => screen.getByTestId('selected').textContent;

describe('the table', () => {
    it('puts into the tree what can be seen, and says where that is in the whole', () => {
        show(<Table n={500} />);
        const grid = screen.getByRole('grid', { name: 'Sections' });
        expect(grid.getAttribute('aria-rowcount')).toBe('501');
        const shown = screen.getAllByRole('row');
        expect(shown.length).toBeGreaterThan(10);
        expect(shown.length).toBeLessThan(60);
        expect(shown.map((row) => row.getAttribute('aria-rowindex')).slice(0, 3)).toEqual(['1', '2', '3']);
    });

    it('sorts by a column, up and down, and says so', async () => {
        show(<Table n={30} />);
        await userEvent.click(screen.getByRole('button', { name: 'Seats' }));
        const head = screen.getByRole('columnheader', { name: /Seats/ });
        const first = head.getAttribute('aria-sort');
        await userEvent.click(screen.getByRole('button', { name: /Seats/ }));
        expect([first, screen.getByRole('columnheader', { name: /Seats/ }).getAttribute('aria-sort')].sort()).toEqual([
            'ascending',
            'descending',
        ]);
    });

    it('leaves the order to the server where not all rows are here', async () => {
        const asked = vi.fn();
        const sorted = columns.map((c) => ({ ...c, sorts: c.id === 'name' }));
        const table = (order: Order) => (
            <>
                <DataTable
                    label="People"
                    name="people"
                    columns={sorted}
                    rows={rows(20)}
                    id={(r) => r.id}
                    total={4213}
                    order={order}
                    onOrder={asked}
                />
            </>
        );
        show(table({ by: 'name', down: false }));
        expect(screen.getByRole('grid').getAttribute('aria-rowcount')).toBe('4214');
        expect(screen.getByRole('columnheader', { name: /Name/ }).getAttribute('aria-sort')).toBe('ascending');
        // What the server does not sort by cannot be pressed, and the rows stay as they came.
        expect(screen.queryByRole('button', { name: 'Seats' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: /Name/ }));
        expect(asked).toHaveBeenLastCalledWith({ by: 'name', down: true });
        expect(screen.getAllByRole('gridcell')[0]?.textContent).toBe('Section 000');
        show(table({ by: 'name', down: true }));
        await userEvent.click(screen.getAllByRole('button', { name: /Name ↓/ })[0] as HTMLElement);
        expect(asked).toHaveBeenLastCalledWith({ by: 'name', down: false });
    });

    it('moves by keys, opens, and keeps the active row in the tree', async () => {
        const opened = vi.fn();
        show(<Table n={500} onOpen={opened} />);
        for (let i = 0; i < 3; i++) fireEvent.keyDown(document.body, { key: 'j' });
        fireEvent.keyDown(document.body, { key: 'k' });
        fireEvent.keyDown(document.body, { key: 'Enter' });
        expect(opened).toHaveBeenLastCalledWith(expect.objectContaining({ id: 'r2' }));
        for (let i = 0; i < 60; i++) fireEvent.keyDown(document.body, { key: 'ArrowDown', repeat: i > 0 });
        const active = screen.getByRole('grid').getAttribute('aria-activedescendant') ?? '';
        expect(document.getElementById(active)?.getAttribute('aria-rowindex')).toBe(String(62 + 2));
    });

    it('selects one by one, with Ctrl, a range with Shift, and all that are loaded', async () => {
        show(<Table n={12} />);
        const row = (name: string) => screen.getByText(name);
        fireEvent.click(row('Section 002'), { ctrlKey: true });
        fireEvent.click(row('Section 005'), { shiftKey: true });
        expect(selected()).toBe('r2 r3 r4 r5');
        fireEvent.click(row('Section 004'), { ctrlKey: true });
        expect(selected()).toBe('r2 r3 r5');
        await userEvent.click(screen.getByRole('checkbox', { name: 'Select Section 000' }));
        expect(selected()).toBe('r2 r3 r5 r0');
        await userEvent.click(screen.getByRole('checkbox', { name: 'Select all loaded rows' }));
        expect(selected()?.split(' ')).toHaveLength(12);
        fireEvent.keyDown(document.body, { key: 'x' });
        expect(selected()?.split(' ')).toHaveLength(11);
    });

    it('remembers which columns were chosen, and always leaves one', async () => {
        const { unmount } = show(<Table n={3} name="columns-test" />);
        expect(screen.queryByRole('columnheader', { name: 'Id' })).toBeNull();
        await userEvent.click(screen.getByRole('button', { name: 'Choose columns' }));
        await userEvent.click(screen.getByRole('checkbox', { name: 'Id' }));
        await userEvent.click(screen.getByRole('checkbox', { name: 'Seats' }));
        await userEvent.click(screen.getByRole('checkbox', { name: 'Name' }));
        expect((screen.getByRole('checkbox', { name: 'Id' }) as HTMLInputElement).disabled).toBe(true);
        unmount();
        show(<Table n={3} name="columns-test" />);
        expect(screen.getByRole('columnheader', { name: 'Id' })).toBeTruthy();
        expect(screen.queryByRole('columnheader', { name: 'Seats' })).toBeNull();
    });

    it('says what it means that there is nothing', () => {
        show(<Table n={0} />);
        expect(screen.getByText('Nobody fits.')).toBeTruthy();
        expect(names()).toEqual([undefined]);
    });
});
