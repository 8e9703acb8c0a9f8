import { useQuery } from '@tanstack/react-query';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { Button } from '@/ui/Button';
import { day, lastDay } from '@/ui/dates';
import { useNotice } from '@/ui/Notice';

/** Invitations that wait for an answer of whoever is signed in: answered here as well as from the mail. */
export function OwnInvitations() {
    const say = useNotice();
    const { data: own } = useQuery({ queryKey: ['own-invitations'], queryFn: () => data(api.GET('/api/invitations')) });
    const answer = useAct(
        ({ invitation, answer }: { invitation: Schemas['OwnInvitation']; answer: 'accept' | 'decline' }) =>
            api.POST('/api/invitations/{invitation}/answer', {
                params: { path: { invitation: invitation.id } },
                body: { answer },
            }),
        {
            then: (_, { invitation, answer }) =>
                say(answer === 'accept' ? `You are ${invitation.role} of ${invitation.section}.` : 'Declined.'),
            failed: (said) => say(said, { bad: true }),
        },
    );
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
                        <Button
                            kind="primary"
                            disabled={answer.busy}
                            onClick={() => answer.run({ invitation: i, answer: 'accept' })}
                        >
                            Accept
                        </Button>
                        <Button disabled={answer.busy} onClick={() => answer.run({ invitation: i, answer: 'decline' })}>
                            Decline
                        </Button>
                    </span>
                </li>
            ))}
        </ul>
    );
}
