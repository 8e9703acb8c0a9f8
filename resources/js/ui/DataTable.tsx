import {
    type ColumnDef,
    flexRender,
    getCoreRowModel,
    getSortedRowModel,
    type SortingState,
    useReactTable,
} from '@tanstack/react-table';
import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { Popover } from 'radix-ui';
import { type ReactNode, useEffect, useId, useMemo, useRef, useState } from 'react';
import { useKey } from '@/shell/keys';
import { type RowActs, TableRow } from './TableRow';
import { useOver } from './useOver';
import { useStored } from './useStored';

const ROW = 34;
const HEAD = 32;

export interface Column<T> {
    id: string;
    label: string;
    /** What the column is sorted by and, unless `cell` is given, what it shows. */
    value: (row: T) => string | number;
    cell?: (row: T) => ReactNode;
    /** CSS grid track, such as `minmax(120px, 2fr)` or `70px`. */
    width: string;
    /** Not shown until chosen. */
    extra?: boolean;
    /** Whether the server sorts by it, where the server sorts. */
    sorts?: boolean;
}

/** What rows are sorted by. */
export interface Order {
    /** Id of the column. */
    by: string;
    down: boolean;
}

interface Props<T> {
    label: string;
    /** Names the table for what is remembered of it: its chosen columns. */
    name: string;
    columns: Column<T>[];
    rows: T[];
    id: (row: T) => string;
    /** The row whose sheet is open. */
    current?: string | null;
    onOpen?: (row: T) => void;
    selected?: ReadonlySet<string>;
    onSelect?: (ids: ReadonlySet<string>) => void;
    /** How many rows there are, where not all are here. */
    total?: number;
    /** Called when the end of the loaded rows comes into view. */
    onEnd?: () => void;
    foot?: ReactNode;
    /** Rows that need a person. */
    marked?: (row: T) => boolean;
    sortable?: boolean;
    /** Where not all rows are here, the server sorts them: how it does now, and what to do for another order. */
    order?: Order;
    onOrder?: (order: Order) => void;
    empty?: ReactNode;
}

/** The table of every list: virtual rows, sorting, chosen columns, selection with Shift and Ctrl, and the keyboard. */
export function DataTable<T>({
    label,
    name,
    columns,
    rows,
    id,
    current = null,
    onOpen,
    selected,
    onSelect,
    total,
    onEnd,
    foot,
    marked,
    sortable = true,
    order,
    onOrder,
    empty,
}: Props<T>) {
    const [own, setOwn] = useState<SortingState>([]);
    const sorting = order ? [{ id: order.by, desc: order.down }] : own;
    const [hidden, setHidden] = useStored<string[]>(
        `columns.${name}`,
        columns.filter((c) => c.extra).map((c) => c.id),
    );
    const [cursor, setCursor] = useState(0);
    const anchor = useRef(0);
    const scroller = useRef<HTMLDivElement>(null);
    const domId = useId();
    const shown = useMemo(() => columns.filter((c) => !hidden.includes(c.id)), [columns, hidden]);
    const defs = useMemo<ColumnDef<T>[]>(
        () =>
            shown.map((c) => ({
                id: c.id,
                header: c.label,
                accessorFn: c.value,
                sortingFn: 'alphanumeric',
                enableSorting: !onOrder || c.sorts === true,
            })),
        [shown, onOrder],
    );
    const table = useReactTable({
        data: rows,
        columns: defs,
        state: { sorting },
        onSortingChange: (change) => {
            const next = typeof change === 'function' ? change(sorting) : change;
            if (!onOrder) return setOwn(next);
            // The server has no list without an order: a third press begins again.
            onOrder(next[0] ? { by: next[0].id, down: next[0].desc } : { by: sorting[0]?.id ?? '', down: false });
        },
        manualSorting: onOrder !== undefined,
        sortDescFirst: false,
        getCoreRowModel: getCoreRowModel(),
        getSortedRowModel: getSortedRowModel(),
        enableSorting: sortable,
    });
    const sorted = table.getRowModel().rows;
    const virtual = useVirtualizer({
        count: sorted.length,
        getScrollElement: () => scroller.current,
        estimateSize: () => ROW,
        overscan: 12,
        // The active row is always in the tree: a screen reader is told of it by its id.
        rangeExtractor: (range) => {
            const seen = defaultRangeExtractor(range);
            return cursor >= range.count || seen.includes(cursor) ? seen : [...seen, cursor].sort((a, b) => a - b);
        },
        // The head sticks to the top of the scrolling box and covers that much of it.
        scrollMargin: HEAD,
        scrollPaddingStart: HEAD,
        scrollPaddingEnd: ROW,
    });
    const items = virtual.getVirtualItems();
    const last = virtual.range?.endIndex ?? 0;
    useEffect(() => {
        if (onEnd && sorted.length > 0 && last >= sorted.length - 20) onEnd();
    }, [onEnd, last, sorted.length]);
    useEffect(() => {
        const at = current === null ? -1 : sorted.findIndex((row) => id(row.original) === current);
        if (at >= 0) {
            setCursor(at);
            // The sheet that opens beside the table changes its height and width: scroll once that has settled.
            requestAnimationFrame(() => virtual.scrollToIndex(at, { align: 'auto' }));
        }
        // Only when another row becomes current: scrolling by hand must not be pulled back.
        // eslint-disable-next-line react-hooks/exhaustive-deps
    }, [current, sorted.length]);

    const move = (to: number) => {
        const next = Math.max(0, Math.min(sorted.length - 1, to));
        setCursor(next);
        virtual.scrollToIndex(next);
        const row = sorted[next];
        // With a sheet open, up and down go on through the rows.
        if (row && current !== null) onOpen?.(row.original);
        scroller.current?.focus({ preventScroll: true });
    };
    const toggle = (index: number, mode: 'one' | 'add' | 'range') => {
        if (!onSelect || !selected) return;
        const next = new Set(mode === 'one' ? [] : selected);
        const [from, to] =
            mode === 'range' ? [Math.min(anchor.current, index), Math.max(anchor.current, index)] : [index, index];
        for (let i = from; i <= to; i++) {
            const row = sorted[i];
            if (!row) continue;
            const key = id(row.original);
            if (mode === 'add' && next.has(key)) next.delete(key);
            else next.add(key);
        }
        if (mode !== 'range') anchor.current = index;
        onSelect(next);
    };
    useKey('j', 'Next row', () => move(cursor + 1), sorted.length > 0, { repeats: true });
    useKey('k', 'Row before', () => move(cursor - 1), sorted.length > 0, { repeats: true });
    useKey('ArrowDown', '', () => move(cursor + 1), sorted.length > 0, { repeats: true });
    useKey('ArrowUp', '', () => move(cursor - 1), sorted.length > 0, { repeats: true });
    useKey(
        'Enter',
        'Open the row',
        () => {
            const row = sorted[cursor];
            if (row) onOpen?.(row.original);
        },
        Boolean(onOpen) && sorted.length > 0,
    );
    useKey('x', 'Select the row', () => toggle(cursor, 'add'), Boolean(onSelect));

    const tracks = `${onSelect ? '34px ' : ''}${shown.map((c) => c.width).join(' ')} 30px`;
    const width = useMemo(() => ({ display: 'grid', gridTemplateColumns: tracks }), [tracks]);
    const place = useMemo(
        () => ({ ...width, position: 'absolute', top: 0, left: 0, right: 0, height: ROW, contain: 'strict' }) as const,
        [width],
    );
    // What the rows call stays the same while what it does follows the table.
    const latest = useRef<RowActs<T>>({ click: () => undefined, tick: () => undefined });
    useEffect(() => {
        latest.current = {
            click: (index, row, event) => {
                setCursor(index);
                if (onSelect && event.shiftKey) toggle(index, 'range');
                else if (onSelect && (event.ctrlKey || event.metaKey)) toggle(index, 'add');
                else onOpen?.(row);
            },
            tick: (index) => toggle(index, 'add'),
        };
    });
    const acts = useMemo<RowActs<T>>(
        () => ({
            click: (index, row, event) => latest.current.click(index, row, event),
            tick: (index) => latest.current.tick(index),
        }),
        [],
    );
    // Where the columns need more than there is, the table scrolls sideways, its head with it.
    const across = shown.reduce((sum, c) => sum + Number(/\d+(?=px)/.exec(c.width)?.[0] ?? 0), onSelect ? 84 : 50);

    return (
        <div className="page">
            <div
                ref={scroller}
                role="grid"
                aria-label={label}
                aria-rowcount={(total ?? sorted.length) + 1}
                aria-multiselectable={onSelect ? true : undefined}
                aria-activedescendant={sorted.length > 0 ? `${domId}-${cursor}` : undefined}
                tabIndex={0}
                className="overflow-auto focus-visible:outline-offset-[-2px] roomy:min-h-0 roomy:flex-1 cramped:max-h-[max(20rem,80vh)]"
            >
                <div role="rowgroup" className="sticky top-0 z-10 bg-paper" style={{ minWidth: across }}>
                    <div
                        role="row"
                        aria-rowindex={1}
                        style={width}
                        className="h-8 items-center border-b border-ink pl-5 text-xs text-muted"
                    >
                        {onSelect && (
                            <span role="columnheader">
                                <input
                                    type="checkbox"
                                    aria-label="Select all loaded rows"
                                    className="accent-ink"
                                    checked={rows.length > 0 && selected?.size === rows.length}
                                    onChange={(event) => onSelect(new Set(event.target.checked ? rows.map(id) : []))}
                                />
                            </span>
                        )}
                        {table.getHeaderGroups()[0]?.headers.map((header) => {
                            const direction = header.column.getIsSorted();
                            return (
                                <span
                                    role="columnheader"
                                    key={header.id}
                                    aria-sort={
                                        direction === 'asc'
                                            ? 'ascending'
                                            : direction === 'desc'
                                              ? 'descending'
                                              : undefined
                                    }
                                    className="truncate pr-3"
                                >
                                    {header.column.getCanSort() ? (
                                        <button
                                            className="hover:text-ink"
                                            onClick={header.column.getToggleSortingHandler()}
                                        >
                                            {flexRender(header.column.columnDef.header, header.getContext())}
                                            {direction === 'asc' ? ' ↑' : direction === 'desc' ? ' ↓' : ''}
                                        </button>
                                    ) : (
                                        flexRender(header.column.columnDef.header, header.getContext())
                                    )}
                                </span>
                            );
                        })}
                        <span role="columnheader">
                            <ColumnPicker columns={columns} hidden={hidden} onChange={setHidden} />
                        </span>
                    </div>
                </div>
                {sorted.length === 0 && empty ? (
                    <div role="row">
                        <div role="gridcell">{empty}</div>
                    </div>
                ) : (
                    <div
                        role="rowgroup"
                        style={{ height: virtual.getTotalSize(), minWidth: across, position: 'relative' }}
                    >
                        {items.map((item) => {
                            const row = sorted[item.index];
                            if (!row) return null;
                            const key = id(row.original);
                            return (
                                <TableRow
                                    key={row.id}
                                    domId={`${domId}-${item.index}`}
                                    index={item.index}
                                    row={row.original}
                                    columns={shown}
                                    style={place}
                                    start={item.start - HEAD}
                                    current={key === current}
                                    selected={onSelect ? (selected?.has(key) ?? false) : null}
                                    cursor={item.index === cursor}
                                    marked={marked?.(row.original) ?? false}
                                    opens={onOpen !== undefined}
                                    acts={acts}
                                />
                            );
                        })}
                    </div>
                )}
            </div>
            {foot && <div className="border-t border-rule px-5 py-1.5 text-xs text-muted">{foot}</div>}
        </div>
    );
}

function ColumnPicker<T>({
    columns,
    hidden,
    onChange,
}: {
    columns: Column<T>[];
    hidden: string[];
    onChange: (hidden: string[]) => void;
}) {
    const over = useOver();
    return (
        <Popover.Root>
            <Popover.Trigger aria-label="Choose columns" className="size-7 hover:text-ink">
                ⋯
            </Popover.Trigger>
            <Popover.Portal container={over}>
                <Popover.Content
                    align="end"
                    aria-label="Columns of this table"
                    className="z-30 border border-ink bg-paper p-3 text-sm"
                >
                    <p className="mb-1 text-xs text-muted">Columns</p>
                    {columns.map((c) => (
                        <label key={c.id} className="flex min-h-7 items-center gap-2">
                            <input
                                type="checkbox"
                                className="accent-ink"
                                checked={!hidden.includes(c.id)}
                                disabled={!hidden.includes(c.id) && hidden.length === columns.length - 1}
                                onChange={(event) =>
                                    onChange(
                                        event.target.checked ? hidden.filter((h) => h !== c.id) : [...hidden, c.id],
                                    )
                                }
                            />
                            {c.label}
                        </label>
                    ))}
                </Popover.Content>
            </Popover.Portal>
        </Popover.Root>
    );
}
