<?php

declare(strict_types=1);

namespace App\Mailroom;

use App\Mailroom\Views\LetterOutlook;
use App\Mailroom\Views\LetterPreview;
use App\Mailroom\Views\MailingLine;
use App\Models\Person;
use App\Models\School;
use App\Platform\Instant;
use App\Platform\PlannerKit;
use App\Platform\SchoolDay;
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Mailroom\QuietHours;
use Vantrel\Core\Mailroom\SendTime;
use Vantrel\Core\Mailroom\TextParts;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Values\Language;

/** Letters to many: everyone gets one of their own, and nobody sees another’s address. */
final readonly class LetterDesk
{
    private const SHOWN = 50;

    public function __construct(
        private Outbox $outbox,
        private Gateways $gateways,
        private LetterFiles $files,
        private PlannerKit $kit,
    ) {}

    /**
     * What would go to whom, and who cannot be reached.
     *
     * @param  list<string>  $files ids
     */
    public function outlook(LetterWhom $whom, LetterWish $wish, array $files, Person $author): LetterOutlook
    {
        $this->files->mustBeOf($files, $author, $wish->by);
        $receivers = $whom->receivers();
        $written = $this->written($whom, $receivers, $wish);
        $languages = $previews = [];
        $texts = $parts = 0;
        foreach ($written as $one) {
            $languages[$one->language] = ($languages[$one->language] ?? 0) + 1;
            $of = $one->via === 'text' ? TextParts::count($one->text) : 0;
            $texts += min($of, 1);
            $parts += $of;
            $previews["$one->language $one->via"] ??= new LetterPreview(
                $one->name,
                self::named($one->language),
                $one->via === 'text' ? '' : $one->subject,
                $one->text,
                $of,
            );
        }
        arsort($languages);
        $reached = array_flip(array_map(fn(Written $w): string => $w->personId, $written));
        $names = fn(callable $which): array => array_values(
            array_map(fn(Receiver $r): string => $r->name, array_filter($receivers, $which)),
        );

        return new LetterOutlook(
            $whom->inWords(),
            count($written),
            $texts,
            $parts,
            $this->gateways->take('text'),
            self::byName($languages),
            self::byName(self::unwritten($receivers, $reached, $wish)),
            $names(fn(Receiver $r): bool => !isset($reached[$r->id])),
            $names(
                fn(Receiver $r): bool => isset($reached[$r->id]) &&
                    $r->bounced !== '' &&
                    self::via($r, $wish) === 'mail',
            ),
            array_values($previews),
            $whom->school->quiet_from,
            $whom->school->quiet_to,
            self::fingerprint($written, $files),
        );
    }

    /**
     * @param  string|null  $at when, by the school’s clock; null for now
     * @param  bool  $evenQuiet whether it goes out in the quiet hours too
     * @param  list<string>  $files ids
     * @param  string  $seen fingerprint of what was looked at
     *
     * @throws StalePlan where somebody else would get it now, or something else
     * @throws Refusal where it went out already a moment ago, the time is over, or nobody can be reached
     */
    public function send(
        LetterWhom $whom,
        LetterWish $wish,
        array $files,
        ?string $at,
        bool $evenQuiet,
        string $seen,
        Person $author,
    ): string {
        $zone = $whom->school->time_zone;
        $now = $this->kit->now();
        $goes = SendTime::of($at, $zone, $now);
        $goes = $evenQuiet
            ? $goes
            : QuietHours::after($goes, $zone, $whom->school->quiet_from, $whom->school->quiet_to);
        $count = DB::transaction(function () use ($whom, $wish, $files, $goes, $now, $seen, $author): int {
            // Of two who press at one time, one sends it.
            Person::query()->whereKey($author->id)->lockForUpdate()->value('id');
            $this->mustBeNew($whom->school, $seen, $now, $author);
            $this->files->mustBeOf($files, $author, $wish->by);
            $messages = $this->written($whom, $whom->receivers(), $wish);
            if (!hash_equals(self::fingerprint($messages, $files), $seen)) {
                throw new StalePlan(
                    ['who gets it'],
                    'Who gets it has changed since you looked. Nothing was sent; look at it again.',
                );
            }
            if ($messages === []) {
                throw new Refusal('None of these can be reached that way.');
            }
            $id = (string) Str::ulid();
            DB::table('mailings')->insert([
                'id' => $id,
                'school_id' => $whom->school->id,
                'section_id' => $whom->section?->id,
                'person_id' => $author->id,
                'whom' => $whom->inWords(),
                'subject' => $wish->subject('en', self::ofAll($whom)),
                'goes_at' => $goes,
                'made_at' => $now,
                'sent_by' => $wish->by->value,
                'seen' => $seen,
            ]);
            $this->files->goWith($id, $files);
            $from = $author->fullName() . ', ' . $whom->school->name;
            $this->outbox->putMany($whom->school->id, $id, $from, $author->confirmedEmail(), $goes, $messages);

            return count($messages);
        });
        $count = Words::count($count, 'letter');

        return $goes === $now ? "$count on the way." : "$count go out when their time has come.";
    }

    /**
     * @param  string  $seen fingerprint of what was looked at
     *
     * @throws Refusal where they sent the very same a moment ago, and have not stopped it
     */
    private function mustBeNew(School $school, string $seen, string $now, Person $author): void
    {
        $before = DB::table('mailings as l')
            ->where('l.person_id', $author->id)
            ->where('l.seen', $seen)
            ->where('l.school_id', $school->id)
            ->where('l.made_at', '>', CarbonImmutable::parse($now)->subMinutes(LetterWish::ONCE_IN))
            ->whereExists(
                fn(Builder $m) => $m
                    ->from('outgoing_messages as m')
                    ->whereColumn('m.mailing_id', 'l.id')
                    ->where('m.state', '<>', MessageState::Stopped->value),
            )
            ->max('l.made_at');
        if (is_string($before)) {
            $time = substr(SchoolDay::local($school->id, $before), 11);
            throw new Refusal(
                "You sent this letter to the same people at $time. Nobody gets it twice: " .
                    'stop that one first, or change a word.',
            );
        }
    }

    /** @return list<MailingLine> newest first */
    public function list(School $school, ?string $authorId = null): array
    {
        $rows = DB::table('mailings as m')
            ->join('people as p', 'p.id', '=', 'm.person_id')
            ->where('m.school_id', $school->id)
            ->when($authorId !== null, fn(Builder $q) => $q->where('m.person_id', $authorId))
            ->orderByDesc('m.made_at')
            ->orderByDesc('m.id')
            ->limit(self::SHOWN)
            ->get(['m.*', 'p.given_name', 'p.family_name']);
        $counts = DB::table('outgoing_messages')
            ->whereIn('mailing_id', $rows->pluck('id'))
            ->groupBy('mailing_id', 'state', 'via')
            ->selectRaw('mailing_id, state, via, count(*) n')
            ->get()
            ->groupBy('mailing_id');

        return array_values(
            $rows
                ->map(function (stdClass $m) use ($counts): MailingLine {
                    $of = $counts[$m->id] ?? collect();
                    $by = $of->groupBy('state')->map(fn(Collection $rows): int => (int) $rows->sum('n'));
                    $amiss = 0;
                    foreach (MessageState::amiss() as $state) {
                        $amiss += (int) ($by[$state->value] ?? 0);
                    }

                    return new MailingLine(
                        (string) $m->id,
                        (string) $m->subject,
                        (string) $m->whom,
                        trim("$m->given_name $m->family_name"),
                        Instant::iso((string) $m->made_at),
                        Instant::iso((string) $m->goes_at),
                        (int) $by->sum(),
                        (int) $of->where('via', 'text')->sum('n'),
                        (int) ($by[MessageState::Waiting->value] ?? 0),
                        $amiss,
                        (int) ($by[MessageState::Stopped->value] ?? 0),
                    );
                })
                ->all(),
        );
    }

    /** Whatever of it has not gone yet does not go. */
    public function stop(School $school, string $id, Person $actor): string
    {
        if (!DB::table('mailings')->where('id', $id)->where('school_id', $school->id)->exists()) {
            throw new NotFoundHttpException();
        }
        $count = DB::table('outgoing_messages')
            ->where('mailing_id', $id)
            ->where('state', MessageState::Waiting->value)
            ->update(['state' => MessageState::Stopped->value, 'problem' => "Stopped by {$actor->fullName()}."]);
        if ($count === 0) {
            throw new Refusal('All of it has gone already.');
        }

        return Words::count($count, 'letter') . ' stopped.';
    }

    /**
     * @param  list<Receiver>  $receivers
     * @return list<Written> to each who can be reached, in the order of the receivers
     */
    private function written(LetterWhom $whom, array $receivers, LetterWish $wish): array
    {
        $written = [];
        foreach ($receivers as $one) {
            $via = self::via($one, $wish);
            if ($via === null) {
                continue;
            }
            $language = $wish->language($one->language);
            $values = [
                ...self::ofAll($whom),
                'name' => $one->name,
                'children' => (new FamilyWords($language))->names($one->names),
            ];
            $written[] = new Written(
                $one->id,
                $one->name,
                $via,
                (string) ($via === 'text' ? $one->phone : $one->email),
                $language,
                $wish->subject($language, $values),
                $via === 'text' ? $wish->text($language, $values) : $wish->body($language, $values),
                $one->children,
            );
        }

        return $written;
    }

    /** @return array<string, string> what fills the places of a letter alike for all */
    private static function ofAll(LetterWhom $whom): array
    {
        return ['school' => $whom->school->name, 'section' => $whom->section->name ?? ''];
    }

    /**
     * @param  list<Receiver>  $receivers
     * @param  array<string, int>  $reached by id
     * @return array<string, int> by tag: how many would read another language than it is written in
     */
    private static function unwritten(array $receivers, array $reached, LetterWish $wish): array
    {
        $count = [];
        foreach ($receivers as $one) {
            $own = $one->language;
            if ($own !== null && isset($reached[$one->id]) && $wish->language($own) !== $own) {
                $count[$own] = ($count[$own] ?? 0) + 1;
            }
        }
        arsort($count);

        return $count;
    }

    /**
     * @param  array<string, int>  $count by tag
     * @return array<string, int> by what the language is called
     */
    private static function byName(array $count): array
    {
        return array_combine(array_map(self::named(...), array_keys($count)), array_values($count));
    }

    /** @return string|null mail or text; null where they cannot be reached so */
    private static function via(Receiver $one, LetterWish $wish): ?string
    {
        return $wish->by->via($one->email !== null, $one->bounced !== '', $one->phone !== null);
    }

    /**
     * @param  list<Written>  $written
     * @param  list<string>  $files ids
     */
    private static function fingerprint(array $written, array $files): string
    {
        return hash('sha256', (string) json_encode([$written, $files], JSON_THROW_ON_ERROR));
    }

    private static function named(string $tag): string
    {
        return Language::read($tag)?->name() ?? $tag;
    }
}
