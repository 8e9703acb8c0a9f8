<?php

declare(strict_types=1);

namespace Vantrel\Core\Values;

use Egulias\EmailValidator\EmailValidator;
use Egulias\EmailValidator\Validation\RFCValidation;

/**
 * An e-mail address after RFC 5321, 5322 and 6531, without comment or quoted local part; in the form of
 * {@see Canonical}.
 */
final class MailAddress
{
    private static ?EmailValidator $validator = null;

    private function __construct(public readonly string $address) {}

    /** Reads a cell: trims, drops `mailto:` and angle brackets; null if what is left is no address. */
    public static function read(string $cell): ?self
    {
        $cell = trim($cell);
        if (preg_match('/<([^<>]+)>\s*$/', $cell, $m) === 1) {
            $cell = $m[1];
        }
        $cell = Canonical::of((string) preg_replace('/^mailto:/i', '', $cell));
        if (strlen($cell) > 254 || !str_contains($cell, '@') || preg_match('/[\s"(),;]/', $cell) === 1) {
            return null;
        }
        // What nearly all addresses are, a dot-atom and a host name of letters (RFC 5321, 4.1.2), needs no parser.
        if (
            preg_match(
                '/^[a-z0-9_+-]+(\.[a-z0-9_+-]+)*@([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z]{2,63}$/',
                $cell,
            ) !== 1 ||
            strpos($cell, '@') > 64
        ) {
            self::$validator ??= new EmailValidator();
            if (!self::$validator->isValid($cell, new RFCValidation())) {
                return null;
            }
        }
        $mail = new self($cell);

        return str_contains($mail->domain(), '.') ? $mail : null;
    }

    /**
     * Whether it was written because a form would not go on without one: "none@none.com". Several families write the
     * same, and would be taken for one. Common practice, no source.
     */
    public function isNobodys(): bool
    {
        $local = (string) strstr($this->address, '@', true);

        return preg_match(
            '/^(?:none|no[-._]?(?:e-?)?mail|unknown|not?applicable|nobody|noone|ninguno|sincorreo)$/',
            $local,
        ) === 1 ||
            // "na@na.com", where "na@" elsewhere may be somebody's initials.
            (preg_match('/^(?:no|na|n-a|nil|null|abc|asdf|x+|xyz|fake|test|email|aucun)$/', $local) === 1 &&
                explode('.', $this->domain())[0] === $local);
    }

    public function domain(): string
    {
        return substr($this->address, (int) strrpos($this->address, '@') + 1);
    }
}
