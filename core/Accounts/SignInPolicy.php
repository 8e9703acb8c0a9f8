<?php

declare(strict_types=1);

namespace Vantrel\Core\Accounts;

use Vantrel\Core\Plan\Refusal;
use Vantrel\Core\Values\GradeLevel;

/** A school's way of signing in for each of its grades, in bands from the lowest: `0-2 card, 3-5 passphrase`. */
final readonly class SignInPolicy
{
    /** @param  array<int, Way>  $ways order of a grade to its way */
    private function __construct(private array $ways) {}

    /**
     * @param  string  $stored as {@see text()} writes it; '' is the default: a passphrase for every grade
     *
     * @throws Refusal where a band cannot be read
     */
    public static function read(string $stored): self
    {
        $ways = [];
        foreach (array_filter(array_map(trim(...), explode(',', $stored)), fn(string $b): bool => $b !== '') as $band) {
            if (
                preg_match('/^(-?\d{1,2}):(-?\d{1,2}) (\w+)$/', $band, $m) !== 1 ||
                Way::tryFrom($m[3]) === null ||
                (int) $m[1] > (int) $m[2]
            ) {
                throw new Refusal("“{$band}” is not a band of grades with a way to sign in.", 'sign_in_policy');
            }
            for ($grade = (int) $m[1]; $grade <= (int) $m[2]; $grade++) {
                if (isset($ways[$grade])) {
                    throw new Refusal(
                        'Two bands hold ' . GradeLevel::of($grade)->label() . '. Each grade stands in one.',
                        'sign_in_policy',
                    );
                }
                $ways[$grade] = Way::from($m[3]);
            }
        }

        return new self($ways);
    }

    /**
     * @param  array<string, string>  $ways grade as typed to the value of its way
     *
     * @throws Refusal where one is no grade
     */
    public static function ofGrades(array $ways): self
    {
        $bands = [];
        foreach ($ways as $grade => $way) {
            $order = GradeLevel::read((string) $grade)?->order;
            $bands[] = "$order:$order $way";
        }

        return self::read(implode(', ', $bands));
    }

    /** @param  string|null  $grade stored code; students without one sign in as the default says */
    public function way(?string $grade): Way
    {
        $order = $grade === null ? null : GradeLevel::read($grade)?->order;

        return $order === null ? Way::Passphrase : $this->ways[$order] ?? Way::Passphrase;
    }

    /**
     * How a person signs in by the policy; null where it does not bind them: staff, guardians, reserve accounts.
     *
     * @param  string|null  $grade stored code
     */
    public function wayOf(string $kind, string $state, ?string $grade): ?Way
    {
        return $kind === 'student' && $state === 'active' ? $this->way($grade) : null;
    }

    /** As it is stored: neighbouring grades of one way are one band. */
    public function text(): string
    {
        $bands = [];
        $ways = $this->ways;
        ksort($ways);
        foreach ($ways as $grade => $way) {
            $last = array_key_last($bands);
            if ($last !== null && $bands[$last][1] === $grade - 1 && $bands[$last][2] === $way) {
                $bands[$last][1] = $grade;
            } else {
                $bands[] = [$grade, $grade, $way];
            }
        }

        return implode(', ', array_map(fn(array $b): string => "$b[0]:$b[1] {$b[2]->value}", $bands));
    }
}
