import { useQuery } from '@tanstack/react-query';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { many } from '@/ui/words';

/** Chosen lines, or all that filters find. */
export interface Whom {
    ids?: string[];
    standing?: Schemas['StandingCount']['standing'];
    section?: string;
    grade?: string;
    q?: string;
}

interface Props {
    school: School;
    whom: Whom;
    onClose: () => void;
    onDone: () => void;
}

/** What inviting would come to, before anything is sent. */
export function InviteDialog({ school, whom, onClose, onDone }: Props) {
    const say = useNotice();
    const outlook = useQuery({
        queryKey: ['invite-outlook', school.id, whom],
        queryFn: () =>
            data(
                api.POST('/api/schools/{school}/guardians/invite/plan', {
                    params: { path: { school: school.id } },
                    body: whom,
                }),
            ),
        gcTime: 0,
    });
    const invite = useAct(
        () =>
            data(
                api.POST('/api/schools/{school}/guardians/invite', {
                    params: { path: { school: school.id } },
                    body: whom,
                }),
            ),
        {
            stale: [
                ['guardians', school.id],
                ['desk', school.id],
                ['guardian-runs', school.id],
            ],
            then: (run) => {
                say(run.state === 'done' ? run.said : 'The invitations go out in the background.');
                onDone();
            },
        },
    );
    const plan = outlook.data;
    return (
        <Dialog open onClose={onClose} title="Invite guardians">
            {!plan ? (
                <Instead of={outlook} what="who would be invited" size="part" />
            ) : (
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        invite.run();
                    }}
                >
                    <p className="mb-3">
                        {plan.guardians === 0
                            ? 'Nobody would get a link.'
                            : `A link goes to ${many(plan.guardians, 'guardian')}, for ${many(plan.children, 'child', 'children')}, at the address on record.`}
                    </p>
                    {plan.guardians > 0 && (
                        <p className="mb-3 text-sm text-muted">
                            It names the school and the child’s given name, works for {plan.days} days, and is written
                            in{' '}
                            {Object.entries(plan.languages)
                                .map(([language, count]) =>
                                    Object.keys(plan.languages).length > 1
                                        ? `${language} (${count.toLocaleString('en')})`
                                        : language,
                                )
                                .join(', ')}
                            .
                        </p>
                    )}
                    {plan.leftOut && <p className="mb-3 border-l-[3px] border-marigold pl-3 text-sm">{plan.leftOut}</p>}
                    {invite.error && (
                        <p role="alert" className="mb-3 text-sm text-madder">
                            {invite.error}
                        </p>
                    )}
                    <DialogFoot type="submit" onCancel={onClose} disabled={invite.busy || plan.guardians === 0}>
                        {plan.guardians > 0 ? `Invite ${many(plan.guardians, 'guardian')}` : 'Invite'}
                    </DialogFoot>
                </form>
            )}
        </Dialog>
    );
}
