<?php

declare(strict_types=1);

namespace App\Mailroom;

use Illuminate\Mail\Mailables\Headers as MailHeaders;
use Symfony\Component\Mime\Email;
use Vantrel\Core\Mailroom\MessageKind;

/**
 * What a mail tells the Mailroom about itself, in headers that never leave it: the way from a mailable to the outbox is
 * the framework's, which carries nothing else.
 */
final readonly class Headers
{
    private const SCHOOL = 'X-Vantrel-School';

    private const KIND = 'X-Vantrel-Kind';

    private const PERSON = 'X-Vantrel-Person';

    private const CHILDREN = 'X-Vantrel-Children';

    private const LANGUAGE = 'X-Vantrel-Language';

    private const FROM = 'X-Vantrel-From';

    private const ABOUT = 'X-Vantrel-About';

    /**
     * @param  string|null  $schoolId null for what no one school sends
     * @param  string  $from who writes: the school, as the receiver knows it
     * @param  list<string>  $children ids of students it tells a guardian of
     * @param  string|null  $aboutId id of the invitation it carries the link of
     */
    public function __construct(
        public ?string $schoolId,
        public MessageKind $kind,
        public string $from = '',
        public ?string $personId = null,
        public array $children = [],
        public string $language = 'en',
        public ?string $aboutId = null,
    ) {}

    public function forMail(): MailHeaders
    {
        return new MailHeaders(
            text: array_filter(
                [
                    self::SCHOOL => (string) $this->schoolId,
                    self::KIND => $this->kind->value,
                    self::FROM => base64_encode($this->from),
                    self::PERSON => (string) $this->personId,
                    self::CHILDREN => implode(' ', $this->children),
                    self::LANGUAGE => $this->language,
                    self::ABOUT => (string) $this->aboutId,
                ],
                fn(string $v): bool => $v !== '',
            ),
        );
    }

    public static function of(Email $email): self
    {
        $of = fn(string $name): string => (string) $email->getHeaders()->get($name)?->getBodyAsString();
        $children = $of(self::CHILDREN);

        return new self(
            $of(self::SCHOOL) ?: null,
            MessageKind::tryFrom($of(self::KIND)) ?? MessageKind::Account,
            (string) base64_decode($of(self::FROM), true),
            $of(self::PERSON) ?: null,
            $children === '' ? [] : (preg_split('/\s+/', $children) ?: []),
            $of(self::LANGUAGE) ?: 'en',
            $of(self::ABOUT) ?: null,
        );
    }
}
