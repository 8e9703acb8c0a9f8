import { type CSSProperties, memo, type MouseEvent } from 'react';
import type { Column } from './DataTable';

/** What a row does when it is clicked or ticked; the same object for as long as the table stands. */
export interface RowActs<T> {
    click: (index: number, row: T, event: MouseEvent) => void;
    tick: (index: number) => void;
}

interface Props<T> {
    domId: string;
    index: number;
    row: T;
    columns: Column<T>[];
    style: CSSProperties;
    start: number;
    current: boolean;
    /** Null where rows cannot be selected. */
    selected: boolean | null;
    cursor: boolean;
    marked: boolean;
    opens: boolean;
    acts: RowActs<T>;
}

function Row<T>({
    domId,
    index,
    row,
    columns,
    style,
    start,
    current,
    selected,
    cursor,
    marked,
    opens,
    acts,
}: Props<T>) {
    return (
        <div
            id={domId}
            role="row"
            aria-rowindex={index + 2}
            aria-selected={selected ?? current}
            style={{ ...style, transform: `translateY(${start}px)` }}
            className={`items-center border-b border-rule pl-5 text-sm ${opens ? 'cursor-pointer' : ''} ${current || selected ? 'bg-tint' : ''} ${current ? 'border-l-[3px] border-l-marigold !pl-[17px]' : ''} ${cursor ? 'cursor-row' : ''} ${marked && !current ? 'font-semibold' : ''}`}
            onClick={(event) => acts.click(index, row, event)}
        >
            {selected !== null && (
                <span role="gridcell" onClick={(event) => event.stopPropagation()}>
                    <input
                        type="checkbox"
                        tabIndex={-1}
                        aria-label={`Select ${columns[0]?.value(row) ?? ''}`}
                        className="accent-ink"
                        checked={selected}
                        onChange={() => acts.tick(index)}
                    />
                </span>
            )}
            {columns.map((column) => (
                <span role="gridcell" key={column.id} className="truncate pr-3">
                    {column.cell ? column.cell(row) : String(column.value(row))}
                </span>
            ))}
        </div>
    );
}

/** One row of a table: drawn anew only when something of it is other, not for every step of a scroll. */
export const TableRow = memo(Row) as typeof Row;
