import { useQuery, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas, sentence } from '@/api/client';
import { Button } from '@/ui/Button';
import { day, lastDay } from '@/ui/dates';
import { useNotice } from '@/ui/Notice';

/** Invitations that wait for an answer of whoever is signed in: answered here as well as from the mail. */
export function OwnInvitations() {
    const queries = useQueryClient();
    const say = useNotice();
    const { data: own } = useQuery({ queryKey: ['own-invitations'], queryFn: () => data(api.GET('/api/invitations')) });
    const answer = async (invitation: Schemas['OwnInvitation'], answer: 'accept' | 'decline') => {
        try {
            await api.POST('/api/invitations/{invitation}/answer', {
                params: { path: { invitation: invitation.id } },
                body: { answer },
            });
            await queries.invalidateQueries();
            say(answer === 'accept' ? `You are ${invitation.role} of ${invitation.section}.` : 'Declined.');
        } catch (e) {
            say(sentence(e), { bad: true });
        }
    };
    if (!own || own.invitations.length === 0) return null;
    return (
        <ul className="border-b border-rule">
            {own.invitations.map((i) => (
                <li
                    key={i.id}
                    className="flex flex-wrap items-center justify-between gap-3 border-l-[3px] border-marigold px-6 py-2"
                >
                    <span>
                        {i.inviter} asks you into <b>{i.section}</b> of {i.school} as {i.role}
                        {i.beginsOn && i.endsOn && `, from ${day(i.beginsOn)} to ${lastDay(i.endsOn)}`}.
                    </span>
                    <span className="flex gap-2">
                        <Button kind="primary" onClick={() => void answer(i, 'accept')}>
                            Accept
                        </Button>
                        <Button onClick={() => void answer(i, 'decline')}>Decline</Button>
                    </span>
                </li>
            ))}
        </ul>
    );
}
