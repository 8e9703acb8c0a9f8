<?php

declare(strict_types=1);

namespace App\OneRoster;

use App\Models\Person;
use App\Models\RosterKey;
use App\Models\School;
use App\Platform\PlannerKit;
use Illuminate\Support\Facades\DB;
use Vantrel\Core\Codes\Token;
use Vantrel\Core\OneRoster\Scope;
use Vantrel\Core\Plan\Refusal;

/** The keys of a school's programs. A key is looked up with each request, so that ending it is felt by the next one. */
final readonly class RosterKeys
{
    /** How long what a key is exchanged for lasts, in seconds. */
    public const LASTS = 3600;

    /** More programs than any school has. */
    private const MOST = 50;

    /** How seldom it is noted that a key is used, in seconds: not with every page of many. */
    private const NOTED = 60;

    public function __construct(private PlannerKit $kit) {}

    /**
     * @param  list<Scope>  $scopes
     * @return array{RosterKey, string} the key, and its secret, this once
     */
    public function make(School $school, string $name, array $scopes, Person $by): array
    {
        if (trim($name) === '') {
            throw new Refusal('Give the program a name, so that others know what the key is for.', 'name');
        }
        if ($scopes === []) {
            throw new Refusal('Choose what the program may read.', 'scopes');
        }
        if (RosterKey::query()->where('school_id', $school->id)->whereNull('ended_at')->count() >= self::MOST) {
            throw new Refusal('There are ' . self::MOST . ' keys. End one that is not used any more first.');
        }
        $seed = $this->kit->seed();
        $secret = Token::draw($this->kit->random("$seed roster key"));
        $key = new RosterKey([
            'id' => $seed,
            'school_id' => $school->id,
            'name' => trim($name),
            'secret_hash' => $secret->hash(),
            'scopes' => array_map(fn(Scope $s): string => $s->value, $scopes),
            'made_at' => $this->kit->now(),
            'made_by' => $by->id,
        ]);
        $key->save();

        return [$key, $secret->plain];
    }

    public function end(RosterKey $key, Person $by): void
    {
        DB::transaction(function () use ($key, $by): void {
            RosterKey::query()
                ->where('id', $key->id)
                ->whereNull('ended_at')
                ->update(['ended_at' => $this->kit->now(), 'ended_by' => $by->id]);
            DB::table('roster_tokens')->where('key_id', $key->id)->delete();
        });
    }

    public function withSecret(string $id, string $secret): ?RosterKey
    {
        $key = RosterKey::query()->where('id', $id)->whereNull('ended_at')->first();

        return $key !== null && hash_equals($key->secret_hash, Token::hashOf($secret)) ? $key : null;
    }

    /**
     * @param  list<Scope>  $scopes
     * @return string a token for the time of {@see LASTS}
     */
    public function exchange(RosterKey $key, array $scopes): string
    {
        $token = Token::draw($this->kit->random($this->kit->seed() . ' roster token'));
        DB::table('roster_tokens')->insert([
            'token_hash' => $token->hash(),
            'key_id' => $key->id,
            'scopes' => json_encode(array_map(fn(Scope $s): string => $s->value, $scopes), JSON_THROW_ON_ERROR),
            'expires_at' => now()->addSeconds(self::LASTS),
        ]);
        DB::table('roster_tokens')->where('key_id', $key->id)->where('expires_at', '<', now())->delete();

        return $token->plain;
    }

    /**
     * The key a token came from, and what the token may read; null where it does not work, or not any more.
     *
     * @param  string  $for what is asked for, to be noted
     * @return array{RosterKey, list<Scope>}|null
     */
    public function open(string $token, string $for): ?array
    {
        $row = DB::table('roster_tokens as t')
            ->join('roster_keys as k', 'k.id', '=', 't.key_id')
            ->where('t.token_hash', Token::hashOf($token))
            ->where('t.expires_at', '>', now())
            ->whereNull('k.ended_at')
            ->first(['t.key_id', 't.scopes']);
        $key = $row === null ? null : RosterKey::query()->find((string) $row->key_id);
        if ($row === null || $key === null) {
            return null;
        }
        if ($key->last_used_at === null || $key->last_used_at < now()->subSeconds(self::NOTED)->format('Y-m-d H:i:s')) {
            $key->update(['last_used_at' => $this->kit->now(), 'last_used_for' => mb_strimwidth($for, 0, 60)]);
        }

        return [$key, self::scopes((array) json_decode((string) $row->scopes, true))];
    }

    /**
     * @param  array<mixed>  $words
     * @return list<Scope>
     */
    public static function scopes(array $words): array
    {
        return array_values(
            array_filter(array_map(fn(mixed $w): ?Scope => is_string($w) ? Scope::tryFrom($w) : null, $words)),
        );
    }
}
