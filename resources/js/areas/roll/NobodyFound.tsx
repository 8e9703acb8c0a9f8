import { useQuery } from '@tanstack/react-query';
import { api, data } from '@/api/client';
import { Button } from '@/ui/Button';
import { Empty } from '@/ui/Empty';

interface Props {
    /** Id of the school; '' where several are looked at. */
    school: string;
    /** What was looked for. */
    q: string;
    /** How many problems are filtered by. */
    problems: number;
    onAsk: (number: string) => void;
    onClear: () => void;
}

/** Nobody is as the filters say; a number that nobody has may stand in the school's record by now. */
export function NobodyFound({ school, q, problems, onAsk, onClear }: Props) {
    const isNumber = school !== '' && /^\d{3,}$/.test(q);
    const { data: record } = useQuery({
        queryKey: ['record', school],
        queryFn: () => data(api.GET('/api/schools/{school}/record', { params: { path: { school } } })),
        enabled: isNumber,
    });
    return (
        <Empty
            title="No matches"
            action={
                <span className="flex flex-wrap gap-3">
                    <Button onClick={onClear}>Clear the filters</Button>
                    {isNumber && record?.there && (
                        <Button onClick={() => onAsk(q)}>Look for {q} in the school’s record</Button>
                    )}
                </span>
            }
        >
            {problems > 0
                ? `No student has ${problems > 1 ? 'these problems together' : 'this problem'}. Good.`
                : 'Try another part of the name, a number or an address. Accents do not matter, nor does a slip of the keys.'}
        </Empty>
    );
}
