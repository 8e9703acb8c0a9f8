import type { ReactNode } from 'react';
import type { Schemas } from '@/api/client';
import { type Column, DataTable } from '@/ui/DataTable';
import { Empty } from '@/ui/Empty';

type Section = Schemas['SectionLine'];

interface Props {
    sections: Section[];
    selected: ReadonlySet<string>;
    onSelect: (ids: ReadonlySet<string>) => void;
    /** What is said of each besides. */
    more: Column<Section>[];
    empty: ReactNode;
}

/** Sections, chosen to print something for. */
export function SectionsToPrint({ sections, selected, onSelect, more, empty }: Props) {
    return (
        <DataTable
            label="Sections to print"
            name="print"
            rows={sections}
            id={(s) => s.id}
            selected={selected}
            onSelect={onSelect}
            onOpen={(s) => {
                const next = new Set(selected);
                if (!next.delete(s.id)) next.add(s.id);
                onSelect(next);
            }}
            empty={<Empty title="No section has students">{empty}</Empty>}
            columns={[
                { id: 'name', label: 'Section', value: (s) => s.name, width: 'minmax(140px, 2fr)' },
                { id: 'kind', label: 'Kind', value: (s) => s.kind, width: '100px' },
                { id: 'students', label: 'Students', value: (s) => s.students, width: '90px' },
                ...more,
            ]}
        />
    );
}
