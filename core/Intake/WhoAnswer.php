<?php

declare(strict_types=1);

namespace Vantrel\Core\Intake;

/**
 * What somebody answered to who a row is: written `is:ID`, `is:ID:how`, `other` for nobody who is known, or `skip`.
 */
final readonly class WhoAnswer
{
    private function __construct(public string $kind, public ?string $personId = null, public string $how = 'same') {}

    /** Null where nothing was said, or nothing that is an answer. */
    public static function read(?string $written): ?self
    {
        if ($written === null) {
            return null;
        }
        $parts = explode(':', $written);

        return match ($parts[0]) {
            'is' => self::is($parts[1] ?? '', $parts[2] ?? 'same'),
            'other', 'skip' => new self($parts[0]),
            default => null,
        };
    }

    /** @param  string  $how same, leave, also, transfer, ask-also or ask-transfer */
    public static function is(string $personId, string $how = 'same'): self
    {
        return new self('is', $personId, $how);
    }

    public function written(): string
    {
        return match (true) {
            $this->personId === null => $this->kind,
            $this->how === 'same' => "is:$this->personId",
            default => "is:$this->personId:$this->how",
        };
    }

    public function skips(): bool
    {
        return $this->kind === 'skip';
    }

    public function isOther(): bool
    {
        return $this->kind === 'other';
    }

    /** Whether another school is asked, which answers for its student. */
    public function asks(): bool
    {
        return str_starts_with($this->how, 'ask-');
    }
}
