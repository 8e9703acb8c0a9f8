<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Models\Person;
use Illuminate\Database\Query\Builder;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;

/**
 * What a session stands by: the secret it was opened with, or that the card, sign-on or passkey still is theirs. Read
 * with whoever makes the request, in the same statement.
 */
final class StandsBy
{
    /** For a statement that reads people; null where the session does not stand by anything of the person's own. */
    public static function column(Opened $opened): ?Builder
    {
        $theirs = fn(string $table): Builder => DB::table("$table as t")
            ->where('t.id', $opened->id)
            ->whereColumn('t.person_id', 'people.id');

        return match ($opened->way) {
            CredentialWay::Password, CredentialWay::Passphrase => $theirs('sign_ins')->select(
                "t.{$opened->way->value}",
            ),
            CredentialWay::Badge => DB::table('badges as b')
                ->join('sign_ins as t', 't.id', '=', 'b.sign_in_id')
                ->where('b.id', $opened->id)
                ->where('b.state', 'live')
                ->whereColumn('t.person_id', 'people.id')
                ->select('t.id'),
            CredentialWay::SignOn => $theirs('identities')->where('t.state', 'live')->select('t.id'),
            CredentialWay::Passkey => $theirs('passkeys')->select('t.id'),
            CredentialWay::RoomPass => null,
        };
    }

    /** Keeps for a request what was read with the person who makes it. */
    public static function keep(Request $request, Person $person, Opened $opened, ?string $column): void
    {
        $request->attributes->set(self::key($person, $opened), [$column]);
    }

    /** Whether it still is what the session was opened with. */
    public static function holds(Request $request, Person $person, Opened $opened): bool
    {
        [$by] = $request->attributes->get(self::key($person, $opened)) ?? [
            ($column = self::column($opened)) === null
                ? null
                : DB::table('people')->where('id', $person->id)->selectSub($column, 'by')->value('by'),
        ];

        return is_string($by) &&
            (!in_array($opened->way, [CredentialWay::Password, CredentialWay::Passphrase], true) ||
                hash_equals(Opened::stampOf($by), $opened->stamp));
    }

    private static function key(Person $person, Opened $opened): string
    {
        return implode(' ', [self::class, $person->id, $opened->way->value, $opened->id]);
    }
}
