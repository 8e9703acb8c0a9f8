import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import { live } from '@/api/live';
import { Button } from '@/ui/Button';
import { moment } from '@/ui/dates';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { QrCode } from '@/ui/QrCode';
import { useCopy } from '@/ui/useCopy';
import { many } from '@/ui/words';
import { CodeTerms } from './CodeTerms';

/** What of the code is printed. */
const PAPERS = [
    ['poster', 'poster'],
    ['slips', 'slips'],
    ['handout', 'handout'],
] as const;

/** The join code: hidden until asked for, since visitors and cameras are in the room. */
export function CodePanel({
    section,
    onChange,
}: {
    section: Schemas['SectionDetail'];
    onChange: () => Promise<unknown>;
}) {
    const copy = useCopy();
    const [shown, setShown] = useState(false);
    const [closing, setClosing] = useState(false);
    const [terms, setTerms] = useState<'new' | 'change' | null>(null);
    const [came, setCame] = useState(false);
    const queries = useQueryClient();
    const say = useNotice();
    const path = { params: { path: { section: section.id } } };
    const asked = useQuery({
        queryKey: ['code', section.id],
        queryFn: () => data(api.GET('/api/sections/{section}/code', path)),
        enabled: shown && section.hasCode,
        refetchInterval: live(5_000),
    });
    const code = asked.data;
    const opened = async (code: Schemas['CodeView']) => {
        queries.setQueryData(['code', section.id], code);
        setTerms(null);
        setShown(true);
        await onChange();
    };
    const close = useAct(() => api.DELETE('/api/sections/{section}/code', path), {
        stale: [],
        then: async () => {
            queries.removeQueries({ queryKey: ['code', section.id] });
            setShown(false);
            await onChange();
        },
        failed: (said) => say(said, { bad: true }),
    });
    return (
        <section>
            <h2 className="mb-2 border-b border-rule pb-1 text-lg">Join code</h2>
            {!section.hasCode ? (
                <>
                    <p className="mb-3 text-sm text-muted">No code is open: nobody can come in by themselves.</p>
                    <Button onClick={() => setTerms('new')}>Open a code</Button>
                </>
            ) : !shown ? (
                <>
                    <p className="mb-3 text-sm text-muted">
                        A code is open. It is hidden, in case others can see this screen.
                    </p>
                    <div className="flex flex-wrap gap-2">
                        <Button onClick={() => setShown(true)}>Show it here</Button>
                        <Wall id={section.id} />
                    </div>
                </>
            ) : !code ? (
                <Instead of={asked} what="the code" size="part" />
            ) : (
                <>
                    <div className="flex items-center justify-between">
                        <p className="font-mono text-[32px] font-semibold tracking-wide" data-testid="join-code">
                            {code.written}
                        </p>
                        <Button kind="quiet" onClick={() => setShown(false)}>
                            hide
                        </Button>
                    </div>
                    <div className="mt-2 flex gap-4">
                        <QrCode
                            path={code.qr}
                            size={code.qrSize}
                            label="The join link as a QR code"
                            className="w-28 shrink-0"
                        />
                        <div className="min-w-0 text-sm">
                            <p className="text-muted">As a link</p>
                            <a
                                className="break-words text-xs underline decoration-rule underline-offset-4"
                                href={code.link}
                            >
                                {code.place}/<wbr />
                                {code.written.replaceAll('-', '')}
                            </a>
                            <button
                                className="mt-2 block text-sm text-muted underline decoration-rule underline-offset-4"
                                onClick={() => copy(code.link, 'the link of the code')}
                            >
                                copy the link
                            </button>
                        </div>
                    </div>
                    <p className="mt-2 text-sm">{termsInWords(code)}</p>
                    <p className="mt-2 flex flex-wrap gap-x-4 text-sm">
                        <span className="text-muted">On paper:</span>
                        {PAPERS.map(([kind, name]) => (
                            <a
                                key={kind}
                                className="underline decoration-rule underline-offset-4"
                                href={`/api/sections/${section.id}/code/print?kind=${kind}`}
                                target="_blank"
                                rel="noreferrer"
                            >
                                {name}
                            </a>
                        ))}
                    </p>
                    <p className="mt-1 text-xs text-muted">
                        Someone guessing all day would hit a section about once every{' '}
                        {many(Math.round(1 / code.guessPerDay), 'day')}.
                    </p>
                    {code.arrived.length > 0 && (
                        <>
                            <button
                                className="mt-2 min-h-6 text-sm underline decoration-rule underline-offset-4"
                                aria-expanded={came}
                                onClick={() => setCame(!came)}
                            >
                                {code.arrived.length} came in by it
                            </button>
                            {came && (
                                <ul
                                    className="max-h-40 overflow-auto text-sm"
                                    tabIndex={0}
                                    aria-label="Who came in by the code"
                                >
                                    {code.arrived.map((a, i) => (
                                        <li key={i} className="flex justify-between border-b border-rule py-0.5">
                                            <span>{a.name}</span>
                                            <span className="text-muted">{a.at && moment(a.at)}</span>
                                        </li>
                                    ))}
                                </ul>
                            )}
                        </>
                    )}
                    <div className="mt-3 flex flex-wrap gap-2">
                        <Wall id={section.id} />
                        <Button onClick={() => setTerms('new')}>New code</Button>
                        <Button onClick={() => setTerms('change')}>Terms</Button>
                        <Button onClick={() => setClosing(true)}>Close it</Button>
                    </div>
                </>
            )}
            {terms && (
                <CodeTerms
                    section={section}
                    code={terms === 'change' ? (code ?? null) : null}
                    onClose={() => setTerms(null)}
                    onDone={(next) => void opened(next)}
                />
            )}
            <Dialog open={closing} onClose={() => setClosing(false)} title={`Close the code of ${section.name}`}>
                <p>The code stops working at once. Students already in stay in. You can open another at any time.</p>
                <DialogFoot
                    onCancel={() => setClosing(false)}
                    cancel="Leave it open"
                    onClick={() => (setClosing(false), close.run())}
                >
                    Close the code
                </DialogFoot>
            </Dialog>
        </section>
    );
}

function termsInWords(code: Schemas['CodeView']): string {
    const who = {
        accounts: 'For accounts here only',
        domain: 'For accounts here, and newcomers with an address of the school',
        approval: 'For accounts here; newcomers wait for your approval',
    }[code.who];
    return [
        who,
        code.cap === null ? '' : `${code.arrived.length} of ${code.cap} places taken`,
        code.startsAt ? `from ${moment(code.startsAt)}` : '',
        code.endsAt ? `until ${moment(code.endsAt)}` : '',
    ]
        .filter(Boolean)
        .join('; ')
        .concat('.');
}

function Wall({ id }: { id: string }) {
    return (
        <Link
            to={`/wall/${id}`}
            state={{ asked: true }}
            className="inline-flex min-h-8 items-center rounded-card border border-ink bg-ink px-3 text-sm font-semibold text-paper"
        >
            On the wall
        </Link>
    );
}
