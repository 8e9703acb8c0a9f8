import { useSearchParams } from 'react-router';
import type { School } from '@/shell/session';
import { CardsPart } from './CardsPart';
import { LettersPart } from './LettersPart';
import { SlipsPart } from './SlipsPart';
import { WallPart } from './WallPart';

const CARDS = { id: 'cards', name: 'Login cards', part: CardsPart };
const PARTS = [
    CARDS,
    { id: 'letters', name: 'Letters', part: LettersPart },
    { id: 'codes', name: 'Codes and handouts', part: WallPart },
    { id: 'slips', name: 'Signed slips', part: SlipsPart },
];

/** What is printed: cards, letters, codes; and the slips that come back. */
export function PrintRoomPage({ school }: { school: School }) {
    const [search, setSearch] = useSearchParams();
    const now = PARTS.find((p) => p.id === search.get('part')) ?? CARDS;
    return (
        <div className="page">
            <div className="border-b border-rule px-6 pt-4">
                <h1 className="text-2xl">Print room</h1>
                <nav aria-label="What is printed" className="-mb-px mt-2 flex flex-wrap gap-x-6">
                    {PARTS.map((p) => (
                        <button
                            key={p.id}
                            aria-current={p === now ? 'page' : undefined}
                            className={`min-h-8 border-b-2 pb-1 text-sm ${p === now ? 'border-ink font-semibold' : 'border-transparent text-muted'}`}
                            onClick={() => setSearch(p.id === 'cards' ? {} : { part: p.id })}
                        >
                            {p.name}
                        </button>
                    ))}
                </nav>
            </div>
            <now.part school={school} />
        </div>
    );
}
