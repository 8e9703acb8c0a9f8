<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

use Vantrel\Core\Accounts\Vouching;
use Vantrel\Core\Matching\Comparator;
use Vantrel\Core\Matching\Population;
use Vantrel\Core\Matching\Subject;
use Vantrel\Core\Matching\Weights;
use Vantrel\Core\Names\NameKey;
use Vantrel\Core\Names\PersonName;
use Vantrel\Core\Records\GuardianshipState;
use Vantrel\Core\Records\PersonState;

/**
 * Whether whoever says to be a guardian is one the school has on record. Only an address or a number that has answered,
 * that stands on record with this child and with nobody else of the child's guardians, and that comes with a like name,
 * settles it. A name proves nothing: aunts bear the family's, and neighbours know it.
 */
final class Likeness
{
    /** What two names may be and still be one person's. A first name that only sounds alike is another parent's. */
    private const GIVEN = ['alike', 'other form', 'part of it', 'near', 'initial only'];

    private readonly Comparator $comparator;

    public function __construct()
    {
        $this->comparator = new Comparator(Weights::published(), new Population());
    }

    /**
     * @param  string  $school of the student: what another school vouches for settles nothing here
     * @param  list<OnRecord>  $record guardians of the student, those ended, refused and restricted too
     */
    public function decide(Claimant $who, string $school, array $record, GuardianPolicy $policy): Decision
    {
        $likely = $this->likely($who, $record);
        $confirmed = $who->person !== null && Vouching::personCountsIn($school, $who->person);
        $byAddress =
            $who->email === ''
                ? []
                : $this->having(fn(OnRecord $o): ?string => $o->person->email(), $who->email, $record);
        $byPhone =
            $who->phone === null
                ? []
                : $this->having(fn(OnRecord $o): ?string => $o->person->phone(), $who->phone, $record);
        if (!self::isClear([...$byAddress, ...$byPhone], $record, $who, $this)) {
            return Decision::look($likely);
        }
        $one = $this->onlyOne($byAddress, $who);
        if ($one !== null && $confirmed && $who->person->email() === $who->email) {
            return $policy === GuardianPolicy::AtOnce ? Decision::connect($one) : Decision::look($one);
        }
        if ($one !== null && $who->person === null) {
            return Decision::send($one);
        }
        $called =
            $who->person?->phoneConfirmed() === true && $who->person->phone() === $who->phone
                ? $this->onlyOne($byPhone, $who)
                : null;

        return $called !== null && $policy === GuardianPolicy::AtOnce
            ? Decision::connect($called)
            : Decision::look($called ?? $likely);
    }

    /**
     * What of somebody on record is the same as of whoever asks.
     *
     * @return list<string> name, address, telephone
     */
    public function alike(Claimant $who, Claimant $known): array
    {
        return array_keys(
            array_filter([
                'name' => $this->likeName($who->name, $known->name),
                'address' => $known->email !== '' && $known->email === $who->email,
                'telephone' => $known->phone !== null && $known->phone === $who->phone,
            ]),
        );
    }

    /**
     * What both have, and is not the same.
     *
     * @return list<string> name, address, telephone
     */
    public function unlike(Claimant $who, Claimant $known): array
    {
        return array_values(
            array_diff(
                array_keys(
                    array_filter([
                        'name' => true,
                        'address' => $known->email !== '' && $who->email !== '',
                        'telephone' => $known->phone !== null && $who->phone !== null,
                    ]),
                ),
                $this->alike($who, $known),
            ),
        );
    }

    /** Whether two names may be those of one person: short forms, other spellings, a name changed by marriage. */
    public function likeName(PersonName $a, PersonName $b): bool
    {
        $levels = $this->comparator->levels(
            new Subject('', $a->given, $a->family),
            new Subject('', $b->given, $b->family),
        );
        if (isset($levels['names swapped'])) {
            return true;
        }
        $given = $levels['given name'] ?? ($levels['given initial'] ?? null);
        if ($given === null) {
            return NameKey::of($a->full()) === NameKey::of($b->full());
        }

        return in_array($given, self::GIVEN, true);
    }

    /**
     * Nobody among those with the address or the number is kept away, connected, sent off or has said no; nor is
     * somebody of a like name, who might come with another address.
     *
     * @param  list<OnRecord>  $found
     * @param  list<OnRecord>  $record
     */
    private static function isClear(array $found, array $record, Claimant $who, self $names): bool
    {
        foreach ($found as $one) {
            if (!self::mayCome($one)) {
                return false;
            }
        }
        foreach ($record as $one) {
            if (!self::mayCome($one) && $names->likeName($who->name, self::named($one))) {
                return false;
            }
        }

        return true;
    }

    /** Who is connected already has an account for it: another one is looked at. */
    private static function mayCome(OnRecord $one): bool
    {
        return $one->link->restriction() === null &&
            in_array($one->link->state(), [GuardianshipState::Listed, GuardianshipState::Invited], true) &&
            $one->person->state() === PersonState::Active;
    }

    /** @param  list<OnRecord>  $found */
    private function onlyOne(array $found, Claimant $who): ?OnRecord
    {
        $alike = array_values(
            array_filter($found, fn(OnRecord $o): bool => $this->likeName($who->name, self::named($o))),
        );

        return count($alike) === 1 ? $alike[0] : null;
    }

    /**
     * @param  list<OnRecord>  $record
     */
    private function likely(Claimant $who, array $record): ?OnRecord
    {
        $best = null;
        $most = 0;
        foreach ($record as $one) {
            $alike = $this->alike(
                $who,
                new Claimant(self::named($one), (string) $one->person->email(), $one->person->phone()),
            );
            if (count($alike) > $most) {
                [$best, $most] = [$one, count($alike)];
            }
        }

        return $best;
    }

    /**
     * @param  callable(OnRecord): ?string  $value
     * @param  list<OnRecord>  $record
     * @return list<OnRecord>
     */
    private function having(callable $value, string $wanted, array $record): array
    {
        return array_values(array_filter($record, fn(OnRecord $o): bool => $value($o) === $wanted));
    }

    private static function named(OnRecord $one): PersonName
    {
        return new PersonName($one->person->givenName(), $one->person->familyName());
    }
}
