<?php

declare(strict_types=1);

namespace App\Guardians;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\FamilyWords;
use App\Mailroom\Headers;
use App\Mailroom\Mail\ContactCodeMail;
use App\Mailroom\Outbox;
use App\Models\Person as PersonModel;
use App\Models\School;
use App\Platform\PlannerKit;
use App\Platform\TryCounter;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use stdClass;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Limit;
use Vantrel\Core\Guardians\OwnContact;
use Vantrel\Core\Mailroom\MessageKind;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Records\Person;
use Vantrel\Core\Records\PersonKind;
use Vantrel\Core\Values\MailAddress;
use Vantrel\Core\Values\Phone;

/**
 * A guardian's own address and number. A change waits until a code has come back from the new one, and from the old one
 * where that is confirmed: whoever finds a device unlocked cannot lead the school's mail elsewhere.
 */
final readonly class ContactDesk
{
    private const MINUTES = 30;

    /** Wrong codes of a million, until it has to be begun anew. */
    private const TRIES = 5;

    public function __construct(
        private Ledger $ledger,
        private Snapshots $snapshots,
        private PlannerKit $kit,
        private TryCounter $tries,
        private Outbox $outbox,
    ) {}

    /** @return bool whether the old one has to answer too */
    public function begin(PersonModel $model, string $what, string $typed): bool
    {
        $person = $this->person($model);
        if ($person->kind() !== PersonKind::Guardian) {
            throw new Refusal('The school keeps the addresses of its staff. Ask the coordinator for another.');
        }
        $school = School::query()->findOrFail($model->school_id);
        $value =
            $what === 'email'
                ? MailAddress::read($typed)->address ??
                    throw new Refusal('That is not a complete mail address.', 'value')
                : Phone::read($typed, $school->country) ??
                    throw new Refusal('That is not a phone number. Type all of it.', 'value');
        $old = OwnContact::old($person, $what);
        if ($value === ($what === 'email' ? $person->email() : $person->phone()) && $value === $old) {
            throw new Refusal('That is what the school has already.', 'value');
        }
        $limit = [Limit::ResetPerson, "contact $person->id"];
        $this->tries->take($limit);
        $random = $this->kit->random($this->kit->seed() . ' contact');
        // In two halves: read off a telephone, and told from other numbers where messages are shown to others.
        $code = fn(): string => sprintf('%03d-%03d', $random->below(1000), $random->below(1000));
        [$new, $before] = [$code(), $code()];
        $asksOld = $old !== null && $old !== $value;
        $id = $this->kit->seed();
        DB::table('contact_changes')->updateOrInsert(
            ['person_id' => $person->id],
            [
                'id' => $id,
                'what' => $what,
                'value' => $value,
                'new_hash' => self::hash($id, $new),
                'old_hash' => $asksOld ? self::hash($id, $before) : null,
                'tries' => 0,
                'made_at' => now(),
                'expires_at' => now()->addMinutes(self::MINUTES),
            ],
        );
        $this->tell($school, $model, $what, $value, 'code.new', $new);
        if ($asksOld) {
            $this->tell($school, $model, $what, (string) $old, 'code.old', $before);
        }

        return $asksOld;
    }

    /** @throws Refusal where a code is wrong, or came too late */
    public function confirm(PersonModel $model, string $new, ?string $old): void
    {
        // Counted before it is looked at: many tries at once are many tries.
        $counted = DB::table('contact_changes')
            ->where('person_id', $model->id)
            ->where('expires_at', '>', now())
            ->where('tries', '<', self::TRIES)
            ->update(['tries' => DB::raw('tries + 1')]);
        /** @var stdClass|null $row */
        $row = DB::table('contact_changes')->where('person_id', $model->id)->first();
        if ($counted === 0 || $row === null) {
            throw new Refusal('These codes do not work any more. Begin again.');
        }
        $id = (string) $row->id;
        $fits = fn(?string $hash, ?string $code): bool => $hash === null ||
            hash_equals($hash, self::hash($id, (string) $code));
        if (!$fits((string) $row->new_hash, $new)) {
            throw new Refusal('That is not the code. Look at the message again.', 'new');
        }
        if (!$fits($row->old_hash === null ? null : (string) $row->old_hash, $old)) {
            throw new Refusal('That is not the code. Look at the message again.', 'old');
        }
        DB::transaction(function () use ($row, $model, $id): void {
            if (DB::table('contact_changes')->where('id', $id)->delete() === 0) {
                throw new Refusal('These codes do not work any more. Begin again.');
            }
            $this->ledger->apply(
                OwnContact::change($this->person($model), (string) $row->what, (string) $row->value, $this->kit->now()),
                $model->school_id,
                $model,
                Action::Address,
            );
        });
    }

    private function tell(School $school, PersonModel $model, string $what, string $to, string $key, string $code): void
    {
        $words = new FamilyWords($model->language);
        $lines = [
            $words->say($key, ['school' => $school->name]),
            $words->say('code.code', ['code' => $code]),
            $words->say('code.not'),
        ];
        if ($what === 'email') {
            Mail::to($to)->send(
                new ContactCodeMail(
                    $school->id,
                    $words->say('code.subject', ['code' => $code]),
                    $words->language,
                    $lines,
                ),
            );

            return;
        }
        $this->outbox->put(
            new Headers($school->id, MessageKind::Account, $school->name, $model->id, language: $words->language),
            'text',
            $to,
            $words->say('code.subject', ['code' => $code]),
            implode(' ', $lines),
            null,
        );
    }

    private function person(PersonModel $model): Person
    {
        return $this->snapshots->find(Person::class, $model->id) ?? throw new NotFoundHttpException();
    }

    private static function hash(string $id, string $code): string
    {
        return hash_hmac('sha256', "$id " . preg_replace('/\D/', '', $code), (string) config('app.key'));
    }
}
