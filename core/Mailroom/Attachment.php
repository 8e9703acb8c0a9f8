<?php

declare(strict_types=1);

namespace Vantrel\Core\Mailroom;

use Vantrel\Core\Plan\Refusal;

/** A file that goes with a letter: a page or a picture, by what is in it and not by what it is called. */
final readonly class Attachment
{
    /** As many to one letter. */
    public const MOST = 5;

    /** Files of one person that wait for a letter; they are cleared away after a day. */
    public const MOST_UNSENT = 30;

    /** Bytes of one, and of all together. What fills a family’s telephone is put on a page instead. */
    public const BYTES = 2_000_000;

    public const ALL_BYTES = 4_000_000;

    private const KINDS = [
        '%PDF-' => ['application/pdf', 'pdf'],
        "\x89PNG\r\n\x1A\n" => ['image/png', 'png'],
        "\xFF\xD8\xFF" => ['image/jpeg', 'jpg'],
    ];

    private function __construct(public string $name, public string $type) {}

    /**
     * @param  string  $called as the file was called
     * @param  string  $head its first bytes
     * @param  int  $size in bytes
     *
     * @throws Refusal naming the file
     */
    public static function of(string $called, string $head, int $size): self
    {
        $name = Line::of((string) preg_replace('/^.*[\/\\\\]/su', '', mb_scrub($called)));
        foreach (self::KINDS as $begins => [$type, $ending]) {
            if (str_starts_with($head, $begins)) {
                if ($size > self::BYTES) {
                    throw new Refusal(
                        "“{$name}” is larger than 2 MB. Make it smaller, or say where it can be read.",
                        'files',
                    );
                }
                $stem = trim(mb_substr((string) preg_replace('/\.\w{1,5}$/u', '', $name), 0, 100));

                return new self(($stem === '' ? 'file' : $stem) . ".$ending", $type);
            }
        }
        throw new Refusal("“{$name}” is no PDF, PNG or JPEG. Save it as a PDF and add that.", 'files');
    }
}
