import type { Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import type { Column } from '@/ui/DataTable';

type Person = Schemas['PersonLine'];

/** What the Roll shows of students, guardians and staff; of several schools, which one each is at. */
export function rollColumns(kind: 'student' | 'guardian' | 'staff', each: School[] = []): Column<Person>[] {
    return [
        {
            id: 'name',
            label: 'Name',
            value: (p: Person) => p.name,
            cell: (p: Person) => (
                <>
                    {p.name}
                    {p.goesBy && <span className="text-muted"> ({p.goesBy})</span>}
                </>
            ),
            width: 'minmax(170px, 2fr)',
            sorts: true,
        },
        ...(each.length > 0
            ? [
                  {
                      id: 'school',
                      label: 'School',
                      value: (p: Person) => each.find((s) => s.id === p.schoolId)?.name ?? '',
                      width: 'minmax(154px, 1.2fr)',
                  },
              ]
            : []),
        ...(kind === 'student'
            ? [
                  {
                      id: 'grade',
                      label: 'Grade',
                      sorts: true,
                      value: (p: Person) => p.grade,
                      width: '62px',
                  },
                  {
                      id: 'number',
                      label: 'Number',
                      sorts: true,
                      value: (p: Person) => p.number,
                      cell: (p: Person) => <span className="font-mono">{p.number}</span>,
                      width: '90px',
                  },
                  {
                      id: 'sections',
                      label: 'Sections',
                      value: (p: Person) => p.sections,
                      width: 'minmax(150px, 2fr)',
                  },
                  {
                      id: 'guardians',
                      label: 'Guardians',
                      value: (p: Person) => p.guardians,
                      width: '86px',
                  },
                  {
                      id: 'user',
                      label: 'User name',
                      value: (p: Person) => p.userName,
                      cell: (p: Person) => <span className="font-mono">{p.userName}</span>,
                      width: 'minmax(140px, 1.6fr)',
                  },
                  {
                      id: 'signed',
                      label: 'Signed in',
                      value: (p: Person) => (p.signedIn ? 'yes' : 'never'),
                      width: '84px',
                  },
              ]
            : [
                  {
                      id: 'email',
                      label: 'E-mail',
                      sorts: true,
                      value: (p: Person) => p.email,
                      width: 'minmax(200px, 2fr)',
                  },
                  {
                      id: 'sections',
                      label: 'Sections',
                      value: (p: Person) => p.sections,
                      width: 'minmax(150px, 2fr)',
                      extra: kind === 'guardian',
                  },
              ]),
    ];
}
