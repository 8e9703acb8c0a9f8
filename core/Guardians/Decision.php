<?php

declare(strict_types=1);

namespace Vantrel\Core\Guardians;

/** What becomes of somebody's word that they are a guardian. */
final readonly class Decision
{
    /**
     * @param  bool  $connects whether they are connected without a person looking
     * @param  bool  $sends whether a link to the address on record settles it: it is the one they gave
     * @param  OnRecord|null  $whom whom they seem to be
     */
    private function __construct(public bool $connects, public bool $sends, public ?OnRecord $whom) {}

    public static function connect(OnRecord $whom): self
    {
        return new self(true, false, $whom);
    }

    public static function send(OnRecord $whom): self
    {
        return new self(false, true, $whom);
    }

    /** A person of the school looks. */
    public static function look(?OnRecord $whom): self
    {
        return new self(false, false, $whom);
    }
}
