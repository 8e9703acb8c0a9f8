import { useState } from 'react';
import { api, data, type Schemas } from '@/api/client';
import { useKey } from '@/shell/keys';
import { Button } from '@/ui/Button';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { useNotice } from '@/ui/Notice';
import { usePrint } from '../print-room/usePrint';

/** One lost card in two keys: n, and Enter. The lost one stops at once, another one is printed. */
export function LostCard({ person, school }: { person: Schemas['PersonDetail']; school: string }) {
    const say = useNotice();
    const [asking, setAsking] = useState(false);
    useKey('n', 'Replace the lost card', () => setAsking(true));
    const print = usePrint(
        () =>
            data(
                api.POST('/api/schools/{school}/cards', {
                    params: { path: { school } },
                    body: { person_ids: [person.id], layout: 'holder-a4', order: 'reading', lost: true },
                }),
            ),
        {
            stale: [
                ['person', person.id],
                ['credentials', person.id],
            ],
            then: () => {
                setAsking(false);
                say(`The lost card of ${person.name} no longer works. The new one opened in another window.`);
            },
        },
    );
    return (
        <p className="mt-3">
            <Button onClick={() => setAsking(true)}>Replace lost card…</Button>
            <Dialog open={asking} onClose={() => setAsking(false)} title={`A new card for ${person.name}`}>
                <form
                    onSubmit={(event) => {
                        event.preventDefault();
                        print.run();
                    }}
                >
                    <p className="text-sm">
                        All cards printed before stop working at once, and the passphrase is a new one. Sessions they
                        opened end with the next click.
                    </p>
                    {print.error && (
                        <p role="alert" className="mt-3 text-sm text-madder">
                            {print.error}
                        </p>
                    )}
                    <DialogFoot type="submit" autoFocus onCancel={() => setAsking(false)} disabled={print.busy}>
                        Print new card
                    </DialogFoot>
                </form>
            </Dialog>
        </p>
    );
}
