<?php

declare(strict_types=1);

namespace App\Accounts;

use App\Accounts\Views\CredentialLine;
use App\Accounts\Views\CredentialPage;
use App\Accounts\Views\SessionLine;
use App\Models\Person;
use App\Platform\Instant;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\CredentialKind;

/** Lists every way to sign in of a person, with when, where and who issued it. */
final class CredentialReader
{
    private const WAYS = [
        'password' => 'with the password',
        'passphrase' => 'with the passphrase',
        'badge' => 'with a card',
        'sign_on' => 'by the school’s sign-on',
        'room_pass' => 'by a room pass',
        'passkey' => 'with a passkey',
    ];

    public function page(Person $person, string $said): CredentialPage
    {
        $by = AddressSource::tryFrom((string) $person->email_by);
        $signIn = DB::table('sign_ins')->where('person_id', $person->id)->exists();

        return new CredentialPage(
            [
                ...$this->secrets($person),
                ...$this->badges($person),
                ...$this->identities($person),
                ...$this->passkeys($person),
                ...$this->others($person),
                ...$this->sessions($person),
            ],
            (string) $person->email,
            $person->confirmedEmail() !== null,
            $by?->label() ?? '',
            Instant::isoOrNull($person->email_at),
            $signIn && $person->state === 'active' && $person->email !== null && $person->kind !== 'student',
            $person->kind === 'staff' && $person->state === 'active',
            $said,
        );
    }

    /** @return list<CredentialLine> */
    private function secrets(Person $person): array
    {
        $signIns = DB::table('sign_ins')
            ->where('person_id', $person->id)
            ->orderBy('user_name')
            ->get([
                'id',
                'user_name',
                'temporary',
                DB::raw('password is not null as own'),
                DB::raw('passphrase is not null as printed'),
            ]);
        $issued = $this->issued($signIns->pluck('id'));
        $lines = [];
        foreach ($signIns as $s) {
            $way =
                (int) $s->own === 1
                    ? CredentialWay::Password
                    : ((int) $s->printed === 1
                        ? CredentialWay::Passphrase
                        : null);
            if ($way !== null) {
                [$since, $by] = $issued["$s->id $way->value"] ?? [null, ''];
                [$last, $where] = $this->used($person, $way, $s->id);
                $lines[] = new CredentialLine(
                    CredentialKind::from($way->value),
                    $s->id,
                    $s->user_name . ((int) $s->temporary === 1 ? ', to be changed at the first sign-in' : ''),
                    $since,
                    $by,
                    $last,
                    $where,
                );
            }
        }

        return $lines;
    }

    /** @return list<CredentialLine> */
    private function badges(Person $person): array
    {
        $badges = DB::table('badges as b')
            ->join('sign_ins as s', 's.id', '=', 'b.sign_in_id')
            ->where('s.person_id', $person->id)
            ->where('b.state', 'live')
            ->orderByDesc('b.made_at')
            ->orderByDesc('b.id')
            ->get(['b.id', 'b.made_at', 's.user_name']);
        $issued = $this->issued($badges->pluck('id'));

        return array_values(
            $badges
                ->map(function (object $b) use ($person, $issued): CredentialLine {
                    [$last, $where] = $this->used($person, CredentialWay::Badge, $b->id);

                    return new CredentialLine(
                        CredentialKind::Card,
                        $b->id,
                        $b->user_name,
                        Instant::iso($b->made_at),
                        $issued[$b->id][1] ?? '',
                        $last,
                        $where,
                    );
                })
                ->all(),
        );
    }

    /** @return list<CredentialLine> */
    private function identities(Person $person): array
    {
        return array_values(
            DB::table('identities')
                ->where('person_id', $person->id)
                ->where('state', 'live')
                ->orderBy('id')
                ->get(['id', 'issuer', 'made_at'])
                ->map(function (object $i) use ($person): CredentialLine {
                    [$last, $where] = $this->used($person, CredentialWay::SignOn, $i->id);

                    return new CredentialLine(
                        CredentialKind::SignOn,
                        $i->id,
                        (string) parse_url($i->issuer, PHP_URL_HOST),
                        Instant::iso($i->made_at),
                        'first sign-in there',
                        $last,
                        $where,
                    );
                })
                ->all(),
        );
    }

    /** @return list<CredentialLine> */
    private function passkeys(Person $person): array
    {
        return array_values(
            DB::table('passkeys')
                ->where('person_id', $person->id)
                ->orderBy('id')
                ->get(['id', 'name', 'made_at'])
                ->map(function (object $p) use ($person): CredentialLine {
                    [$last, $where] = $this->used($person, CredentialWay::Passkey, $p->id);

                    return new CredentialLine(
                        CredentialKind::Passkey,
                        $p->id,
                        $p->name,
                        Instant::iso($p->made_at),
                        'set up by themselves',
                        $last,
                        $where,
                    );
                })
                ->all(),
        );
    }

    /** @return list<CredentialLine> second factor, and links in mails that work now */
    private function others(Person $person): array
    {
        $factor = DB::table('second_factors')
            ->where('person_id', $person->id)
            ->whereNotNull('secret')
            ->first(['confirmed_at']);
        $links = DB::table('password_resets as r')
            ->join('sign_ins as s', 's.id', '=', 'r.sign_in_id')
            ->where('s.person_id', $person->id)
            ->whereNull('r.used_at')
            ->where('r.expires_at', '>', now())
            ->orderBy('r.id')
            ->get(['r.id', 'r.address', 'r.made_at']);

        return [
            ...$factor === null
                ? []
                : [
                    new CredentialLine(
                        CredentialKind::SecondFactor,
                        $person->id,
                        'authenticator app',
                        Instant::isoOrNull($factor->confirmed_at),
                        'set up by themselves',
                        null,
                        '',
                    ),
                ],
            ...array_values(
                $links
                    ->map(
                        fn(object $r): CredentialLine => new CredentialLine(
                            CredentialKind::Link,
                            $r->id,
                            "sent to $r->address",
                            Instant::isoOrNull($r->made_at),
                            '',
                            null,
                            '',
                        ),
                    )
                    ->all(),
            ),
        ];
    }

    /** @return list<CredentialLine> */
    private function sessions(Person $person): array
    {
        return array_values(
            OpenSessions::of($person->id)
                ->map(
                    fn(object $s): CredentialLine => new CredentialLine(
                        CredentialKind::Session,
                        SessionLine::keyOf($s->id),
                        SessionLine::device((string) $s->user_agent),
                        null,
                        self::WAYS[$s->way] ?? '',
                        gmdate('Y-m-d\TH:i:s\Z', (int) $s->last_activity),
                        (string) $s->ip_address,
                    ),
                )
                ->all(),
        );
    }

    /** @return array{string|null, string} when a credential was used last, and where */
    private function used(Person $person, CredentialWay $way, string $id): array
    {
        $use = DB::table('credential_uses')
            ->where('person_id', $person->id)
            ->where('way', $way->value)
            ->where('credential_id', $id)
            ->first(['last_at', 'address', 'device']);

        return $use === null ? [null, ''] : [Instant::iso($use->last_at), "$use->device, $use->address"];
    }

    /**
     * Who issued what the ledger knows: by the id of a record, and by id and column of a secret.
     *
     * @param  Collection<int, mixed>  $ids
     * @return array<string, array{string|null, string}> when, and by whom
     */
    private function issued(Collection $ids): array
    {
        $found = [];
        $changes = DB::table('ledger_changes as c')
            ->join('ledger_entries as e', 'e.seq', '=', 'c.entry_seq')
            ->leftJoin('people as p', 'p.id', '=', 'e.actor_id')
            ->whereIn('c.row_id', $ids)
            ->whereNull('e.undone_at')
            ->orderBy('c.id')
            ->get([
                'c.row_id',
                'c.after',
                'c.was_version',
                'c.reason',
                'e.made_at',
                DB::raw("TRIM(CONCAT(p.given_name, ' ', p.family_name)) as actor"),
            ]);
        foreach ($changes as $c) {
            $line = [Instant::iso($c->made_at), $c->actor === null ? $c->reason : "$c->reason by $c->actor"];
            if ($c->was_version === null) {
                $found[$c->row_id] = $line;
            }
            foreach (['password', 'passphrase'] as $column) {
                if (((array) json_decode($c->after, true))[$column] ?? null) {
                    $found["$c->row_id $column"] = $line;
                }
            }
        }

        return $found;
    }
}
