<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** What a plan to invite guardians comes to. */
final readonly class Invited
{
    /**
     * @param  list<string>  $invitations ids of those to be sent
     * @param  int  $children how many ties they are about
     * @param  array<string, int>  $languages tag to how many links are written in it, the most first
     * @param  array<string, int>  $not {@see NotInvited} to how many ties
     */
    public function __construct(
        public array $invitations,
        public int $children,
        public array $languages,
        public array $not,
    ) {}

    /** In words: who is left out, and why. */
    public function leftOut(): string
    {
        $parts = [];
        foreach ($this->not as $why => $count) {
            $parts[] = number_format($count) . ' ' . NotInvited::from($why)->label($count);
        }

        return $parts === [] ? '' : 'Not invited: ' . implode(', ', $parts) . '.';
    }
}
