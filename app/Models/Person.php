<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Database\Eloquent\Relations\BelongsToMany;
use Illuminate\Database\Eloquent\Relations\HasMany;
use Illuminate\Foundation\Auth\User;
use Illuminate\Http\Request;
use LogicException;
use Vantrel\Core\Accounts\AddressSource;
use Vantrel\Core\Accounts\Vouching;
use Vantrel\Core\Records\AddressState;

/**
 * Someone the school knows: student, guardian or staff. Signing in leads to a person, through any of their sign-ins.
 *
 * @property string $id
 * @property int $version
 * @property string $school_id
 * @property string $kind
 * @property string $given_name
 * @property string $family_name
 * @property string|null $preferred_name the given name they go by
 * @property string $search_name
 * @property string|null $birth_date
 * @property string|null $number
 * @property string|null $grade
 * @property string|null $email
 * @property string $email_state claimed or confirmed
 * @property string|null $email_by
 * @property string|null $email_at
 * @property string|null $phone
 * @property string|null $language code of the one the family is written to in
 * @property string|null $name_shown how much of the name others read; null for as the school has it
 * @property string $state
 * @property string|null $merged_into
 * @property string|null $erased_on
 * @property string|null $pictures keyed hash of three pictures
 * @property-read Collection<int, SignIn> $signIns
 * @property-read School $school
 */
final class Person extends User
{
    use WrittenByLedger;

    public $incrementing = false;

    public $timestamps = false;

    protected $table = 'people';

    protected $keyType = 'string';

    protected $guarded = [];

    /** @var list<string> */
    protected $hidden = ['pictures'];

    /** Who makes a request behind sign-in. */
    public static function signedIn(Request $request): self
    {
        $person = $request->user();

        return $person instanceof self ? $person : throw new LogicException('Nobody is signed in.');
    }

    /** @return BelongsToMany<School, $this> the schools this person coordinates */
    public function coordinates(): BelongsToMany
    {
        return $this->belongsToMany(School::class, 'coordinators', 'person_id', 'school_id')->wherePivot(
            'state',
            'active',
        );
    }

    /** @return BelongsTo<School, $this> */
    public function school(): BelongsTo
    {
        return $this->belongsTo(School::class);
    }

    /** @return HasMany<SignIn, $this> */
    public function signIns(): HasMany
    {
        return $this->hasMany(SignIn::class, 'person_id');
    }

    /** Whether the address, if it has been confirmed, counts at a school: what one vouches for ends at its walls. */
    public function addressCountsIn(string $schoolId): bool
    {
        return $this->email !== null &&
            Vouching::countsIn(
                $schoolId,
                $this->school_id,
                AddressState::from($this->email_state),
                AddressSource::tryFrom((string) $this->email_by),
            );
    }

    /** The address, where it has been confirmed: nothing personal goes to any other. */
    public function confirmedEmail(): ?string
    {
        return $this->email_state === 'confirmed' ? $this->email : null;
    }

    /** Who they are since accounts were merged: themselves, or whom they were merged into. */
    public function now(): self
    {
        return $this->merged_into === null ? $this : self::query()->findOrFail($this->merged_into);
    }

    /** The given name they are called by. */
    public function calledName(): string
    {
        return $this->preferred_name ?? $this->given_name;
    }

    public function fullName(): string
    {
        return trim("$this->given_name $this->family_name");
    }

    /** Secrets belong to sign-ins, of which a person may have several; the person has none. */
    public function getAuthPassword(): string
    {
        return '';
    }

    // Sessions end by themselves; there is no "remember me" token to keep.
    public function getRememberTokenName(): string
    {
        return '';
    }
}
