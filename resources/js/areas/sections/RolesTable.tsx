import { useQuery } from '@tanstack/react-query';
import { api, data } from '@/api/client';
import { Dialog } from '@/ui/Dialog';

/** What each role may do in a section, as the server holds it. */
export function RolesTable({ onClose }: { onClose: () => void }) {
    const { data: table } = useQuery({
        queryKey: ['roles'],
        queryFn: () => data(api.GET('/api/roles')),
        staleTime: Infinity,
    });
    return (
        <Dialog open wide onClose={onClose} title="What each role may do">
            <table className="w-full border-collapse text-left text-sm">
                <thead>
                    <tr className="border-b border-ink text-xs text-muted">
                        <th className="py-1 font-normal">In a section</th>
                        {table?.roles.map((role) => (
                            <th key={role} className="px-3 py-1 font-normal">
                                {role}
                            </th>
                        ))}
                    </tr>
                </thead>
                <tbody>
                    {table?.powers.map((row) => (
                        <tr key={row.power} className="border-b border-rule">
                            <th scope="row" className="min-w-36 py-1.5 font-normal first-letter:uppercase">
                                {row.power}
                            </th>
                            {row.may.map((may, i) => (
                                <td key={i} className={`px-3 py-1.5 ${may ? '' : 'text-muted'}`}>
                                    {may ? 'yes' : 'no'}
                                </td>
                            ))}
                        </tr>
                    ))}
                </tbody>
            </table>
            <p className="mt-4 text-sm text-muted">
                A coordinator of the school may do all of it in every section. A substitute may only between first and
                last day.
            </p>
        </Dialog>
    );
}
