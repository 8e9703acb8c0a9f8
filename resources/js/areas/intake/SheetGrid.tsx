import { defaultRangeExtractor, useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useId, useMemo, useRef, useState } from 'react';
import { useKey } from '@/shell/keys';
import type { Schemas } from '@/api/client';
import { columnAt, FATES, letter, PARTS, sayings, type SheetRow } from './bands';
import { BandMenu } from './BandMenu';
import { ColumnMenu } from './ColumnMenu';

const ROW = 30;
const HEAD = 52;
const NUMBER = 58;
const PART = 84;
const READ = 300;

const LINE = 'absolute left-0 grid w-full items-stretch border-b border-rule text-sm leading-[29px]';
const LOOK: Partial<Record<SheetRow['part'], string>> = {
    header: 'border-ink font-semibold',
    groups: 'font-semibold',
    heading: 'font-serif font-semibold',
};

interface Props {
    list: Schemas['IntakeDetail'];
    /** Place of the sheet among those of the files. */
    source: number;
    width: number;
    /** Rows in all, loaded or not. */
    total: number;
    rows: SheetRow[];
    busy: boolean;
    /** Whether something can still be said of the list. */
    open: boolean;
    onSay: (answers: Record<string, string | null>) => void;
    onEnd: () => void;
}

/** Cells as they came with what was made of each, moved through with the arrow keys; Enter opens what can be said. */
export function SheetGrid({ list, source, width, total, rows, busy, open, onSay, onEnd }: Props) {
    const scroller = useRef<HTMLDivElement>(null);
    const domId = useId();
    const [at, setAt] = useState<[number, number]>([0, 0]);
    const [range, setRange] = useState<[number, number] | null>(null);
    const [menu, setMenu] = useState<number | null>(null);
    const widths = useMemo(
        () =>
            Array.from({ length: width }, (_, c) => {
                const field = columnAt(list.sheets, source, c)?.column.field;
                const label = list.fields.find((f) => f.key === field)?.label ?? '';
                const longest = Math.max(4, ...rows.slice(0, 200).map((r) => r.cells[c]?.text.length ?? 0));
                return Math.round(Math.max(Math.min(26, longest) * 7.2, Math.min(14, label.length) * 7) + 20);
            }),
        [width, rows, list.sheets, list.fields, source],
    );
    const template = `${NUMBER}px ${PART}px ${widths.map((w) => `${w}px`).join(' ')} minmax(${READ}px, 1fr)`;
    const across = NUMBER + PART + widths.reduce((a, b) => a + b, 0) + READ;
    const virtual = useVirtualizer({
        count: rows.length,
        getScrollElement: () => scroller.current,
        estimateSize: () => ROW,
        overscan: 12,
        rangeExtractor: (seen) => {
            const shown = defaultRangeExtractor(seen);
            return at[0] >= seen.count || shown.includes(at[0]) ? shown : [...shown, at[0]].sort((a, b) => a - b);
        },
        scrollMargin: HEAD,
        scrollPaddingStart: HEAD,
        scrollPaddingEnd: ROW,
    });
    const last = virtual.range?.endIndex ?? 0;
    useEffect(() => {
        if (rows.length > 0 && last >= rows.length - 20) onEnd();
    }, [last, rows.length, onEnd]);
    const move = (down: number, right: number) => {
        const row = Math.max(0, Math.min(rows.length - 1, at[0] + down));
        const column = Math.max(0, Math.min(width, at[1] + right));
        setAt([row, column]);
        setRange(null);
        virtual.scrollToIndex(row);
        const box = scroller.current;
        const left = NUMBER + PART + widths.slice(0, Math.max(0, column - 1)).reduce((a, b) => a + b, 0);
        if (box && column > 0 && left - NUMBER - PART < box.scrollLeft) box.scrollLeft = left - NUMBER - PART;
        else if (box && left + (widths[column - 1] ?? 0) + READ > box.scrollLeft + box.clientWidth)
            box.scrollLeft = left + (widths[column - 1] ?? 0) + READ - box.clientWidth;
    };
    const many = rows.length > 0;
    useKey('ArrowDown', 'Next row', () => move(1, 0), many, { repeats: true });
    useKey('ArrowUp', 'Row before', () => move(-1, 0), many, { repeats: true });
    useKey('ArrowRight', 'Next cell', () => move(0, 1), many, { repeats: true });
    useKey('ArrowLeft', 'Cell before', () => move(0, -1), many, { repeats: true });
    useKey('Enter', 'What can be said of the row', () => setMenu(at[0]), many && open && !busy);
    const picked = (index: number) => {
        const [from, to] = range && index >= range[0] && index <= range[1] ? range : [index, index];
        return rows.slice(from, to + 1);
    };
    const row = rows[at[0]];
    const cell = at[1] > 0 ? row?.cells[at[1] - 1] : undefined;
    const sticky = 'sticky z-[5] bg-paper';
    return (
        <>
            <div
                ref={scroller}
                role="grid"
                aria-label={`Sheet of ${list.title}`}
                aria-rowcount={total + 1}
                aria-colcount={width + 2}
                aria-busy={busy}
                aria-activedescendant={many ? `${domId}-${at[0]}-${at[1]}` : undefined}
                tabIndex={0}
                className={`overflow-auto border-t border-rule roomy:min-h-0 roomy:flex-1 cramped:max-h-[max(20rem,80vh)] focus-visible:outline-offset-[-2px] ${busy ? 'opacity-60' : ''}`}
            >
                <div role="rowgroup" className="sticky top-0 z-10 bg-paper" style={{ minWidth: across }}>
                    <div
                        role="row"
                        aria-rowindex={1}
                        className="grid border-b border-ink text-xs"
                        style={{ gridTemplateColumns: template, height: HEAD }}
                    >
                        <span role="columnheader" className={`${sticky} left-0 self-stretch px-2 pt-2 text-muted`}>
                            Row
                        </span>
                        <span
                            role="columnheader"
                            className={`${sticky} self-stretch px-1 pt-2 text-muted`}
                            style={{ left: NUMBER }}
                        >
                            Is
                        </span>
                        {widths.map((_, place) => (
                            <ColumnMenu
                                key={place}
                                list={list}
                                source={source}
                                place={place}
                                off={!open || busy}
                                onSay={onSay}
                            />
                        ))}
                        <span
                            role="columnheader"
                            className={`sticky right-0 z-[5] self-stretch bg-paper cramped:static border-l border-ink px-3 pt-2 text-muted`}
                        >
                            Understood
                        </span>
                    </div>
                </div>
                <div role="rowgroup" className="relative" style={{ height: virtual.getTotalSize(), minWidth: across }}>
                    {virtual.getVirtualItems().map((item) => {
                        const one = rows[item.index];
                        if (!one) return null;
                        // What alone stands in its row reaches over the empty cells after it.
                        const alone = one.part !== 'row' && one.cells.filter((c) => c.text !== '').length === 1;
                        const out = !['row', 'header', 'groups', 'heading'].includes(one.part);
                        const marked = range !== null && item.index >= range[0] && item.index <= range[1];
                        const ground = marked ? 'bg-tint' : 'bg-paper';
                        return (
                            <div
                                key={item.key}
                                role="row"
                                aria-rowindex={item.index + 2}
                                className={`${LINE} ${out ? 'text-muted' : ''} ${LOOK[one.part] ?? ''}`}
                                style={{
                                    gridTemplateColumns: template,
                                    height: ROW,
                                    transform: `translateY(${item.start - HEAD}px)`,
                                }}
                            >
                                <span
                                    role="rowheader"
                                    id={`${domId}-${item.index}-0`}
                                    className={`sticky left-0 z-[5] ${ground}`}
                                >
                                    <BandMenu
                                        label={`Row ${one.number}`}
                                        number={one.number}
                                        sayings={sayings(source, picked(item.index), list.said)}
                                        open={menu === item.index}
                                        onOpen={(is) => {
                                            setAt([item.index, 0]);
                                            setMenu(is ? item.index : null);
                                            if (!is) setRange(null);
                                        }}
                                        onReach={() =>
                                            setRange([Math.min(at[0], item.index), Math.max(at[0], item.index)])
                                        }
                                        off={!open || busy}
                                        onSay={onSay}
                                    />
                                </span>
                                <span
                                    role="gridcell"
                                    className={`sticky z-[5] truncate px-1 text-xs leading-[29px] ${ground}`}
                                    style={{ left: NUMBER }}
                                >
                                    {PARTS[one.part]}
                                </span>
                                {widths.map((_, c) => {
                                    const here = one.cells[c];
                                    const active = at[0] === item.index && at[1] === c + 1;
                                    return (
                                        <span
                                            key={c}
                                            role="gridcell"
                                            id={`${domId}-${item.index}-${c + 1}`}
                                            aria-selected={active}
                                            aria-colindex={c + 2}
                                            title={here?.note || undefined}
                                            onClick={() => {
                                                setAt([item.index, c + 1]);
                                                setRange(null);
                                            }}
                                            className={`${alone && here?.text ? 'whitespace-nowrap' : 'truncate'} px-2 ${here ? `cell-${here.fate}` : ''} ${active ? 'outline outline-2 -outline-offset-2 outline-ink' : ''}`}
                                        >
                                            {here?.fate === 'above' ? here.note.replace(/^as above: /, '') : here?.text}
                                            {here && !['read', 'says', 'blank'].includes(here.fate) && (
                                                <span className="sr-only">, {FATES[here.fate].toLowerCase()}</span>
                                            )}
                                        </span>
                                    );
                                })}
                                <span
                                    role="gridcell"
                                    title={one.read.join('\n') || one.why}
                                    className={`sticky right-0 z-[5] cramped:static truncate border-l border-ink px-3 font-sans font-normal ${ground}`}
                                >
                                    {one.read.length > 0 ? one.read.join(' + ') : one.why}
                                </span>
                            </div>
                        );
                    })}
                </div>
            </div>
            <p aria-live="polite" className="min-h-9 border-t border-rule px-6 py-2 text-sm">
                {row && (
                    <>
                        <span className="font-mono text-muted">
                            {at[1] > 0 ? letter(at[1] - 1) : ''}
                            {row.number}
                        </span>{' '}
                        {cell && cell.text.trim() !== '' ? (
                            <>
                                <strong>{cell.text}</strong> {FATES[cell.fate]}: {cell.note}
                            </>
                        ) : (
                            row.why || row.read.join(' + ')
                        )}
                    </>
                )}
            </p>
        </>
    );
}
