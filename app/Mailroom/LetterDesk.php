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
use Carbon\CarbonImmutable;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Str;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Mailroom\LetterWish;
use Vantrel\Core\Mailroom\MessageState;
use Vantrel\Core\Mailroom\QuietHours;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Plan\StalePlan;
use Vantrel\Core\Plan\Words;
use Vantrel\Core\Values\Language;

/** Letters to many: everyone gets one of their own, and nobody sees another’s address. */
final readonly class LetterDesk
{
    private const SHOWN = 50;

    public function __construct(private Outbox $outbox, private PlannerKit $kit) {}

    /** What would go to whom, and who cannot be reached. */
    public function outlook(LetterWhom $whom, LetterWish $wish): LetterOutlook
    {
        $receivers = $whom->receivers();
        $written = $this->written($whom, $receivers, $wish);
        $languages = $previews = [];
        foreach ($written as $one) {
            $languages[$one->language] = ($languages[$one->language] ?? 0) + 1;
            $previews[$one->language] ??= new LetterPreview(
                $one->name,
                self::named($one->language),
                $one->subject,
                $one->text,
            );
        }
        arsort($languages);
        $names = fn(callable $which): array => array_values(
            array_map(fn(Receiver $r): string => $r->name, array_filter($receivers, $which)),
        );

        return new LetterOutlook(
            $whom->inWords(),
            count($written),
            array_combine(array_map(self::named(...), array_keys($languages)), array_values($languages)),
            $names(fn(Receiver $r): bool => $r->email === null),
            $names(fn(Receiver $r): bool => $r->email !== null && $r->bounced !== ''),
            array_values($previews),
            QuietHours::FROM,
            QuietHours::TO,
            self::fingerprint($written),
        );
    }

    /**
     * @param  string|null  $at when, by the school’s clock; null for now
     * @param  bool  $evenQuiet whether it goes out in the quiet hours too
     * @param  string  $seen fingerprint of what was looked at
     *
     * @throws StalePlan where somebody else would get it now, or something else
     */
    public function send(
        LetterWhom $whom,
        LetterWish $wish,
        ?string $at,
        bool $evenQuiet,
        string $seen,
        Person $author,
    ): string {
        $zone = $whom->school->time_zone;
        $now = $this->kit->now();
        $goes = $at === null ? $now : max($now, CarbonImmutable::parse($at, $zone)->utc()->format('Y-m-d H:i:s'));
        $goes = $evenQuiet ? $goes : QuietHours::after($goes, $zone);
        $id = (string) Str::ulid();
        $messages = $this->written($whom, $whom->receivers(), $wish);
        if (!hash_equals(self::fingerprint($messages), $seen)) {
            throw new StalePlan(
                ['who gets it'],
                'Who gets it has changed since you looked. Nothing was sent; look at it again.',
            );
        }
        if ($messages === []) {
            throw new Refusal('Nobody of these can be reached by mail.');
        }
        DB::transaction(function () use ($whom, $wish, $goes, $now, $id, $messages, $author): void {
            DB::table('mailings')->insert([
                'id' => $id,
                'school_id' => $whom->school->id,
                'section_id' => $whom->section?->id,
                'person_id' => $author->id,
                'whom' => $whom->inWords(),
                'subject' => $wish->subject('en', self::ofAll($whom)),
                'goes_at' => $goes,
                'made_at' => $now,
            ]);
            $from = $author->fullName() . ', ' . $whom->school->name;
            $this->outbox->putMany($whom->school->id, $id, $from, $author->confirmedEmail(), $goes, $messages);
        });
        $count = Words::count(count($messages), 'letter');

        return $goes === $now ? "$count on the way." : "$count go out when their time has come.";
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
            ->groupBy('mailing_id', 'state')
            ->selectRaw('mailing_id, state, count(*) n')
            ->get()
            ->groupBy('mailing_id');

        return array_values(
            $rows
                ->map(function (stdClass $m) use ($counts): MailingLine {
                    $by = ($counts[$m->id] ?? collect())->pluck('n', 'state');
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
            if ($one->email === null) {
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
                $one->email,
                $language,
                $wish->subject($language, $values),
                $wish->body($language, $values),
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

    /** @param  list<Written>  $written */
    private static function fingerprint(array $written): string
    {
        return hash('sha256', (string) json_encode($written, JSON_THROW_ON_ERROR));
    }

    private static function named(string $tag): string
    {
        return Language::read($tag)?->name() ?? $tag;
    }
}
