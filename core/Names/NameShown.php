<?php

declare(strict_types=1);

namespace Vantrel\Core\Names;

/**
 * How much of a student's name stands where others read it: on cards, on the list of a room, among classmates. What is
 * on record stays whole.
 */
enum NameShown: string
{
    case Full = 'full';
    /** Given name and the first letter of the family name. */
    case Initial = 'initial';

    /** The person's own, or else the school's. */
    public static function for(?string $own, string $school): self
    {
        return self::tryFrom((string) $own) ?? (self::tryFrom($school) ?? self::Full);
    }

    /** @param  string  $given the name they are called by */
    public function of(string $given, string $family): string
    {
        $name = new PersonName($given, $family);

        return $this === self::Full ? $name->full() : $name->display();
    }
}
