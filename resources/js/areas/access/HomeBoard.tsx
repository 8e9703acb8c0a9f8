import { useTranslation } from 'react-i18next';
import type { Schemas } from '@/api/client';
import { day } from '@/ui/dates';

type Notice = Schemas['HomeNotice'];

/** What is missing, what is coming and what is new, for one child; nothing where there is nothing. */
export function HomeBoard({
    board,
    child,
}: {
    board: Pick<Schemas['HomeStudent'], 'missing' | 'coming' | 'new'>;
    /** Under whose name it stands; left out on a student's own page. */
    child?: string;
}) {
    const { t } = useTranslation();
    const Heading = child === undefined ? 'h2' : 'h3';
    const parts: [string, Notice[], boolean][] = [
        [t('Not handed in'), board.missing, true],
        [t('Coming'), board.coming, false],
        [t('New'), board.new, false],
    ];
    return (
        <>
            {parts
                .filter(([, notices]) => notices.length > 0)
                .map(([title, notices, amiss]) => (
                    <section key={title} aria-label={child ? `${child}: ${title}` : title} className="mb-5">
                        <Heading className={`mb-1 text-lg ${amiss ? 'text-madder' : ''}`}>{title}</Heading>
                        <ul>
                            {notices.map((notice) => (
                                <li key={notice.id} className="border-b border-rule py-3">
                                    <span className="block text-lg">
                                        <bdi>{notice.title}</bdi>
                                    </span>
                                    <span className="block text-sm text-muted">
                                        {notice.day &&
                                            (notice.kind === 'work'
                                                ? t('due {{day}}', { day: day(notice.day) })
                                                : day(notice.day))}
                                        {notice.day && notice.section && ', '}
                                        <bdi>{notice.section}</bdi>
                                    </span>
                                    {notice.body && (
                                        <span className="mt-1 block whitespace-pre-wrap" dir="auto">
                                            {notice.body}
                                        </span>
                                    )}
                                </li>
                            ))}
                        </ul>
                    </section>
                ))}
        </>
    );
}
