<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Ledger\Ledger;
use App\Ledger\Snapshots;
use App\Mailroom\Mail\ResetMail;
use App\Models\Person;
use App\Models\School;
use App\Models\SignIn;
use App\Platform\PlannerKit;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Mail;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;
use Vantrel\Core\Accounts\Addresses;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\Lifetime;
use Vantrel\Core\Accounts\Vouching;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\Plan\Action;
use Vantrel\Core\Records;

/**
 * Links in mails by which a person sets a password: asked for by themselves, or sent by a coordinator for a first
 * sign-in.
 */
final class ResetLinks
{
    public function __construct(
        private readonly PlannerKit $kit,
        private readonly Ledger $ledger,
        private readonly Snapshots $snapshots,
    ) {}

    /** @param  string  $address which a mail goes to; following its link confirms it */
    public function send(Person $person, SignIn $signIn, string $address, Lifetime $works): void
    {
        $token = Token::draw($this->kit->random($this->kit->seed() . ' reset'));
        DB::table('password_resets')->insert([
            'id' => $this->kit->seed(),
            'sign_in_id' => $signIn->id,
            'token_hash' => $token->hash(),
            'address' => $address,
            'made_at' => now(),
            'expires_at' => now()->addSeconds($works->value),
        ]);
        Mail::to($address)->send(
            new ResetMail(
                $person,
                School::query()->findOrFail($person->school_id)->name,
                $signIn->user_name,
                rtrim((string) config('app.url'), '/') . '/new-password#' . $token->plain,
                $works->minutes(),
            ),
        );
    }

    /**
     * A link that works: not used, not too old, and sent to the address the person still has.
     *
     * @return object{id: string, sign_in_id: string, address: string|null}
     */
    public function find(string $token): object
    {
        /** @var object{id: string, sign_in_id: string, address: string|null} */
        return DB::table('password_resets as r')
            ->join('sign_ins as s', 's.id', '=', 'r.sign_in_id')
            ->join('people as p', 'p.id', '=', 's.person_id')
            ->where('r.token_hash', Token::hashOf($token))
            ->whereNull('r.used_at')
            ->where('r.expires_at', '>', now())
            ->where(fn(Builder $q) => $q->whereNull('r.address')->orWhereColumn('r.address', 'p.email'))
            ->first(['r.id', 'r.sign_in_id', 'r.address']) ?? throw new NotFoundHttpException();
    }

    /** @param  object{id: string}  $link */
    public function take(object $link): void
    {
        if (
            DB::table('password_resets')
                ->where('id', $link->id)
                ->whereNull('used_at')
                ->update(['used_at' => now()]) === 0
        ) {
            throw new NotFoundHttpException();
        }
    }

    /**
     * Whoever followed the link reads the mailbox it was sent to.
     *
     * @param  object{address: string|null}  $link
     */
    public function confirm(Person $person, object $link): void
    {
        $row = $this->snapshots->find(Records\Person::class, $person->id);
        if ($row === null || $link->address === null || $link->address !== $row->email() || Vouching::hasShown($row)) {
            return;
        }
        $this->ledger->apply(
            Addresses::confirm($row, AddressSource::Mail, $this->kit->now()),
            $person->school_id,
            $person,
            Action::Address,
        );
    }

    public static function closeAll(string $personId): void
    {
        DB::table('password_resets')
            ->whereIn('sign_in_id', fn($q) => $q->select('id')->from('sign_ins')->where('person_id', $personId))
            ->whereNull('used_at')
            ->update(['used_at' => now()]);
    }
}
