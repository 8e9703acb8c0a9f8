import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useAct } from '@/api/act';
import { api, data, type Schemas } from '@/api/client';
import type { School } from '@/shell/session';
import { Choice } from '@/ui/Choice';
import { Dialog } from '@/ui/Dialog';
import { DialogFoot } from '@/ui/DialogFoot';
import { Instead } from '@/ui/Instead';
import { useNotice } from '@/ui/Notice';
import { LetterPicture } from './LetterPicture';
import { LANGUAGES, type Tag } from './letters';

type Kind = Schemas['WordingView']['kind'];

interface Props {
    school: School;
    kind: Kind;
    open: boolean;
    onClose: () => void;
}

/** The words of a letter, by language, with the page beside them as they are typed. */
export function WordingDialog({ school, kind, open, onClose }: Props) {
    const [language, setLanguage] = useState<Tag>('en');
    return (
        <Dialog open={open} onClose={onClose} title="Wording of the letter" wide>
            <div className="mb-4 flex flex-wrap items-end gap-x-6 gap-y-2">
                <Choice label="Language" value={language} onChange={setLanguage} options={[...LANGUAGES]} />
                <a
                    className="text-sm underline underline-offset-4"
                    href={`/api/schools/${school.id}/letters/sample?kind=${kind}&language=${language}`}
                    target="_blank"
                    rel="noreferrer"
                >
                    As it will be printed
                </a>
            </div>
            {open && <Words key={`${kind} ${language}`} {...{ school, kind, language, onClose }} />}
        </Dialog>
    );
}

function Words({ school, kind, language, onClose }: Omit<Props, 'open'> & { language: Tag }) {
    const queries = useQueryClient();
    const say = useNotice();
    const [typed, setTyped] = useState<Record<string, string>>({});
    const key = ['wording', school.id, kind, language];
    const asked = useQuery({
        queryKey: key,
        queryFn: () =>
            data(
                api.GET('/api/schools/{school}/letters/wording', {
                    params: { path: { school: school.id }, query: { kind, language } },
                }),
            ),
    });
    const save = useAct(
        () =>
            data(
                api.POST('/api/schools/{school}/letters/wording', {
                    params: { path: { school: school.id } },
                    body: { kind, language, texts: typed },
                }),
            ),
        {
            stale: [['letters', school.id]],
            then: (view) => {
                queries.setQueryData(key, view);
                setTyped({});
                const others = LANGUAGES.filter((l) => view.lacking.includes(l.value)).map((l) => l.label);
                say(
                    others.length === 0
                        ? 'Saved. You can undo this in the Ledger.'
                        : `Saved. It is missing in ${others.join(', ')}: write it there too.`,
                );
            },
        },
    );
    const view = asked.data;
    if (!view) return <Instead of={asked} what="the words" />;
    const text = (t: Schemas['WordingText']) => typed[t.name] ?? t.own ?? (t.name === 'note' ? '' : t.standard);
    const way = language === 'ar' ? 'rtl' : 'ltr';
    return (
        <form
            onSubmit={(event) => {
                event.preventDefault();
                save.run();
            }}
        >
            <div className="grid gap-6 sm:grid-cols-[1fr_220px]">
                <div className="flex max-h-[46vh] flex-col gap-3 overflow-auto pr-2">
                    <p className="text-xs text-muted">
                        Filled in for each student: {view.fields.map((f) => `{${f}}`).join(', ')}. An empty field goes
                        back to the standard wording.
                    </p>
                    {view.texts.map((t) => (
                        <label key={t.name} className="block text-sm">
                            <span className="flex justify-between">
                                {t.label}
                                <span className="text-xs text-muted">
                                    {t.lacking ? 'missing here' : t.own === null ? '' : 'your wording'}
                                </span>
                            </span>
                            <textarea
                                dir={way}
                                lang={language}
                                rows={text(t).length > 70 || t.name === 'note' ? 3 : 1}
                                className={`mt-1 w-full rounded-card border bg-paper px-2 py-1 text-sm ${
                                    save.field(`texts.${t.name}`) || t.lacking ? 'border-madder' : 'border-ink/60'
                                }`}
                                value={text(t)}
                                onChange={(event) => setTyped({ ...typed, [t.name]: event.target.value })}
                            />
                            {save.field(`texts.${t.name}`) && (
                                <span role="alert" className="text-madder">
                                    {save.field(`texts.${t.name}`)}
                                </span>
                            )}
                        </label>
                    ))}
                </div>
                <LetterPicture
                    kind={kind}
                    language={language}
                    school={school.name}
                    texts={Object.fromEntries(view.texts.map((t) => [t.name, text(t)]))}
                />
            </div>
            {save.error && Object.keys(typed).every((name) => !save.field(`texts.${name}`)) && (
                <p role="alert" className="mt-3 text-sm text-madder">
                    {save.error}
                </p>
            )}
            <DialogFoot
                type="submit"
                onCancel={onClose}
                cancel="Close"
                disabled={save.busy || Object.keys(typed).length === 0}
            >
                Save wording
            </DialogFoot>
        </form>
    );
}
