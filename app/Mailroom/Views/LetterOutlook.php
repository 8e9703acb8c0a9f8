<?php

declare(strict_types=1);

namespace App\Mailroom\Views;

use App\Platform\Resource;

/** What a letter to many would be, before it is sent. */
final readonly class LetterOutlook extends Resource
{
    /**
     * @param  string  $whom in words
     * @param  int  $count how many get one
     * @param  array<string, int>  $languages how many in each
     * @param  int  $texts how many of them as a text
     * @param  int  $parts of all texts together: what is paid for
     * @param  bool  $textsGo whether a gateway takes them; else they are kept here
     * @param  array<string, int>  $unwritten how many read a language it is not written in, by language
     * @param  list<string>  $without names of those who cannot be reached so
     * @param  list<string>  $bounced names of those whose last mail came back; they get one all the same
     * @param  list<LetterPreview>  $previews one of each language
     * @param  int  $quietFrom hour of the school’s clock from which nothing goes out unless it is said so
     * @param  int  $quietTo hour until which
     * @param  string  $seen fingerprint, to be sent back with it
     */
    public function __construct(
        public string $whom,
        public int $count,
        public int $texts,
        public int $parts,
        public bool $textsGo,
        public array $languages,
        public array $unwritten,
        public array $without,
        public array $bounced,
        public array $previews,
        public int $quietFrom,
        public int $quietTo,
        public string $seen,
    ) {}
}
