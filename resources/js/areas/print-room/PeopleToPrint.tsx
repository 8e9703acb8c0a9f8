import type { Schemas } from '@/api/client';
import { DataTable } from '@/ui/DataTable';
import { many } from '@/ui/words';

type Person = Schemas['PersonLine'];

/** Students chosen in the Roll, or on a worklist, as it hands them over. */
export function handedOver(state: unknown): Person[] {
    const people = (state as { people?: Person[] } | null)?.people;
    return Array.isArray(people) ? people : [];
}

export function PeopleToPrint({ people, onSections }: { people: Person[]; onSections: () => void }) {
    return (
        <DataTable
            label="Students to print"
            name="print-people"
            rows={people}
            id={(p) => p.id}
            empty={null}
            foot={
                <span className="flex items-center justify-between">
                    <span>{many(people.length, 'student')} chosen in the Roll</span>
                    <button className="underline underline-offset-4" onClick={onSections}>
                        Choose sections instead
                    </button>
                </span>
            }
            columns={[
                { id: 'name', label: 'Name', value: (p) => p.name, width: 'minmax(160px, 2fr)' },
                { id: 'grade', label: 'Grade', value: (p) => p.grade, width: '70px' },
                { id: 'sections', label: 'Sections', value: (p) => p.sections, width: 'minmax(140px, 2fr)' },
                { id: 'user', label: 'User name', value: (p) => p.userName, width: 'minmax(140px, 1fr)' },
            ]}
        />
    );
}
