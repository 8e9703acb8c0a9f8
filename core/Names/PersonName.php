<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/** Given and family names as a school records them. Either may be '' where a person has one name only. */
final readonly class PersonName
{
    public function __construct(public string $given, public string $family) {}

    public function full(): string
    {
        return trim("{$this->given} {$this->family}");
    }

    /** "Noor H.": what classmates and a projector may see. */
    public function display(): string
    {
        $first = explode(' ', $this->given)[0];
        if ($first === '') {
            return explode(' ', $this->family)[0];
        }
        $words = explode(' ', $this->family);
        // The initial is that of the name itself, not of a particle before it: "Ines V." for "van der Velde" would be
        // no help.
        foreach ($words as $word) {
            if ($word !== '' && !NameReader::isParticle($word)) {
                return $first . ' ' . mb_strtoupper(mb_substr($word, 0, 1)) . '.';
            }
        }

        return $first;
    }

    /** What the Roll searches: every word of both names, plain. */
    public function searchKey(): string
    {
        return NameKey::of($this->full());
    }
}
